#include "vole/world/entities.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <stdexcept>

#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/state.hpp"
#include "vole/base/writing.hpp"
#include "vole/world/component_types.hpp"
#include "vole/world/kind_of.hpp"

namespace vole {

Entities::Entities(const ComponentTypes& types) : types_(types) {
  std::vector<const ComponentTypes::Type*> by_number;
  for (const ComponentTypes::Type& type : types.all()) {
    if (type.number >= by_number.size()) by_number.resize(type.number + 1);
    by_number[type.number] = &type;
  }
  pools_.reserve(by_number.size());
  for (const ComponentTypes::Type* const type : by_number)
    pools_.push_back(type ? detail::Pool(*type->described, *type->copies) : detail::Pool());
}

Entities::~Entities() = default;

Entity Entities::create() {
  std::uint32_t index = 0;
  if (free_.empty()) {
    index = static_cast<std::uint32_t>(generations_.size());
    generations_.push_back(0);
    marked_.push_back(0);
  } else {
    index = free_.back();
    free_.pop_back();
  }
  ++generations_[index];
  ++alive_;
  return {index, generations_[index]};
}

void Entities::remove(Entity entity) {
  if (removed(entity)) return;
  marked_[entity.index] = 1;
  leaving_.push_back(entity.index);
}

void Entities::sweep() {
  for (const std::uint32_t index : leaving_) {
    for (detail::Pool& pool : pools_)
      if (pool) pool.take(index);
    ++generations_[index];
    marked_[index] = 0;
    free_.push_back(index);
    --alive_;
  }
  leaving_.clear();
  for (detail::Pool& pool : pools_)
    if (pool) pool.sweep();
}

void Entities::put_aside(const std::function<bool(Entity)>& which, Entities& aside) {
  std::vector<std::uint32_t> generations(generations_.size()), free;
  for (std::uint32_t index = 0; index < generations_.size(); ++index)
    if (alive(at(index)) && generations_[index] % 2 != 0 && which(at(index)))
      generations[index] = generations_[index];
    else
      free.push_back(index);
  aside.clear(std::move(generations), std::move(free));
  for (std::size_t type = 0; type < pools_.size(); ++type)
    for (std::size_t i = 0, end = pools_[type].places(); i < end; ++i)
      if (const std::uint32_t owner = pools_[type].owner_at(i);
          owner != detail::Pool::nowhere && aside.alive(at(owner)))
        aside.pools_[type].take_over(owner, pools_[type]);
  sweep();
}

void Entities::bring_back(Entities& aside) {
  for (std::size_t type = 0; type < pools_.size(); ++type)
    for (std::size_t i = 0, end = aside.pools_[type].places(); i < end; ++i)
      if (const std::uint32_t owner = aside.pools_[type].owner_at(i);
          owner != detail::Pool::nowhere && alive(aside.at(owner)))
        pools_[type].take_over(owner, aside.pools_[type]);
}

bool Entities::alive(Entity entity) const {
  return entity && entity.index < generations_.size() && generations_[entity.index] == entity.generation;
}

std::uint32_t Entities::checked(Entity entity) const {
  if (!alive(entity)) throw std::out_of_range("a component for an entity that is gone");
  return entity.index;
}

void Entities::missing_component(Entity entity, std::size_t type, std::string_view type_name) const {
  const auto named = std::find_if(types_.all().begin(), types_.all().end(),
                                  [type](const ComponentTypes::Type& each) { return each.number == type; });
  const std::string component = named != types_.all().end() ? named->name : std::string(type_name);
  const KindOf* const kind = find<KindOf>(entity);
  if (!entity) throw std::out_of_range(fmt::format("no thing was given whose {} could be had", component));
  if (!alive(entity))
    throw std::out_of_range(fmt::format("the thing whose {} is asked for is gone", component));
  throw std::out_of_range(kind ? fmt::format("the thing of kind \"{}\" (number {}) has no component \"{}\"",
                                             kind->name, entity.index, component)
                               : fmt::format("thing number {}, which is of no kind, has no component \"{}\"",
                                             entity.index, component));
}

void Entities::unknown_component(std::string_view type) {
  throw std::logic_error(fmt::format(
      "the game does not know the component {0}: add knows<{0}>(\"its name\") to the Game", type));
}

namespace {

// Whether the free indices are those of the even generations, each once.
bool free_are_right(const std::vector<std::uint32_t>& generations, const std::vector<std::uint32_t>& free) {
  std::vector<bool> is_free(generations.size());
  for (const std::uint32_t index : free) {
    if (index >= generations.size() || generations[index] % 2 != 0 || is_free[index]) return false;
    is_free[index] = true;
  }
  return free.size() == static_cast<std::size_t>(std::count_if(generations.begin(), generations.end(),
                                                               [](std::uint32_t g) { return g % 2 == 0; }));
}

}  // namespace

void Entities::write(StateWriter& out) const {
  write_state(out, generations_);
  write_state(out, free_);
  for (const ComponentTypes::Type& type : types_.all()) pools_[type.number].write(out);
}

void Entities::read(StateReader& in) {
  std::vector<std::uint32_t> generations, free;
  read_state(in, generations);
  read_state(in, free);
  if (!free_are_right(generations, free)) StateReader::broken();
  clear(std::move(generations), std::move(free));
  for (const ComponentTypes::Type& type : types_.all()) pools_[type.number].read(in, generations_);
}

void Entities::clear(std::vector<std::uint32_t> generations, std::vector<std::uint32_t> free) {
  generations_ = std::move(generations);
  free_ = std::move(free);
  leaving_.clear();
  marked_.assign(generations_.size(), 0);
  alive_ = generations_.size() - free_.size();
  for (detail::Pool& pool : pools_)
    if (pool) pool.clear();
}

std::string Entities::to_toml(std::string_view within) const {
  const auto list_of = [](const std::vector<std::uint32_t>& numbers) {
    TomlText list(TomlText::Layout::one_line);
    field_type<std::vector<std::uint32_t>>().write(list, &numbers);
    return list.text();
  };
  std::string text = fmt::format("[{}entities]\ngenerations = {}\nfree = {}\n", within, list_of(generations_),
                                 list_of(free_));
  // Visits go by the order of attaching, which the list of things alone would not tell.
  text += fmt::format("\n[{}entities.order]\n", within);
  for (const ComponentTypes::Type& type : types_.all()) {
    const detail::Pool& pool = pools_[type.number];
    std::vector<std::uint32_t> owners;
    for (std::size_t i = 0; i < pool.places(); ++i)
      if (pool.owner_at(i) != detail::Pool::nowhere) owners.push_back(pool.owner_at(i));
    if (!owners.empty()) text += fmt::format("{} = {}\n", type.name, list_of(owners));
  }
  for (std::uint32_t index = 0; index < generations_.size(); ++index) {
    if (generations_[index] % 2 == 0) continue;
    text += fmt::format("\n[[{}entities.things]]\nindex = {}\n", within, index);
    for (const ComponentTypes::Type& type : types_.all()) {
      const detail::Pool& pool = pools_[type.number];
      if (!pool.has(index)) continue;
      text += type.name;
      text += " = ";
      text += pool.to_inline_toml(index);
      text += '\n';
    }
  }
  return text;
}

namespace {

// How the state of all things is written.
struct ThingsText {
  std::vector<std::uint32_t> generations, free;
  Named<std::vector<std::uint32_t>> order;
  std::vector<TomlValue> things;
};
template <class V>
void describe(V& v, ThingsText& text) {
  v("generations", text.generations, needed());
  v("free", text.free, needed());
  v("order", text.order);
  v("things", text.things);
}

// Where the thing is among the generations; their count when it is none that lives.
std::size_t index_of(const TomlValue& thing, const std::vector<std::uint32_t>& generations) {
  const TomlValue* const index = thing.find("index");
  const bool known = index && index->type == TomlValue::Type::whole && index->whole >= 0 &&
                     index->whole < static_cast<std::int64_t>(generations.size()) &&
                     generations[static_cast<std::size_t>(index->whole)] % 2 != 0;
  return known ? static_cast<std::size_t>(index->whole) : generations.size();
}

}  // namespace

void Entities::from_toml(const TomlValue& toml, Report& report) {
  ThingsText text;
  vole::read(toml, text, report);
  if (report.has_errors()) return;
  if (!free_are_right(text.generations, text.free))
    return report.error(toml.where, "\"free\" is not a list of the indices with even generations");
  std::vector<const TomlValue*> by_index(text.generations.size());
  for (const TomlValue& thing : text.things) {
    const std::size_t index = index_of(thing, text.generations);
    if (index < by_index.size())
      by_index[index] = &thing;
    else
      report.error(thing.where, "this thing has no index with an odd generation");
  }
  clear(std::move(text.generations), std::move(text.free));
  for (const auto& order : text.order) {
    const ComponentTypes::Type* const type = types_.find(order.name);
    if (!type) {
      report.error(order.where, fmt::format("no component \"{}\"", order.name),
                   did_you_mean(order.name, names_of(types_.all())));
      continue;
    }
    for (const std::uint32_t index : order.value) {
      const TomlValue* const thing = index < by_index.size() ? by_index[index] : nullptr;
      if (const TomlValue* const component = thing ? thing->find(order.name) : nullptr)
        pools_[type->number].from_toml(index, *component, report);
      else
        report.error(order.where, fmt::format("thing {} has no \"{}\"", index, order.name));
    }
  }
  for (std::uint32_t index = 0; index < by_index.size(); ++index)
    if (by_index[index]) report_unordered(index, *by_index[index], report);
}

void Entities::report_unordered(std::uint32_t index, const TomlValue& thing, Report& report) const {
  for (const TomlValue::Entry& entry : thing.entries) {
    const ComponentTypes::Type* const type = types_.find(entry.key);
    if (entry.key != "index" && !(type && pools_[type->number].has(index)))
      report.error(entry.where, fmt::format("\"{}\" of this thing is not in [entities.order]", entry.key));
  }
}

}  // namespace vole
