#include "vole/world/compiled_kinds.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <map>
#include <set>
#include <utility>

#include "vole/asset/sheet.hpp"
#include "vole/base/names.hpp"
#include "vole/input/intent.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/world/attached.hpp"
#include "vole/world/body.hpp"
#include "vole/world/kind_of.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/place_link.hpp"
#include "vole/world/pose.hpp"
#include "vole/world/shapes.hpp"
#include "vole/world/sprite.hpp"

namespace vole {
namespace {

bool has(const CompiledKind& kind, std::string_view component) {
  return std::any_of(kind.parts.begin(), kind.parts.end(),
                     [component](const auto& part) { return part.type->name == component; });
}

// The names of those parts that are movers by intent, and of those that write it.
std::vector<std::string_view> movers_of(const CompiledKind& kind) {
  std::vector<std::string_view> names;
  for (const CompiledKind::Part& part : kind.parts)
    if (part.type->mover) names.push_back(part.type->name);
  return names;
}
std::vector<std::string_view> pilots_of(const CompiledKind& kind) {
  std::vector<std::string_view> names;
  for (const CompiledKind::Part& part : kind.parts)
    if (part.type->pilot) names.push_back(part.type->name);
  return names;
}

// What moves has these besides.
void add_motion(CompiledKind& kind, const ComponentTypes& types) {
  const auto add = [&]<class T>(T component) {
    kind.parts.push_back({types.of<T>(), std::make_shared<T>(component)});
  };
  const bool moves = !movers_of(kind).empty();
  if (moves || !pilots_of(kind).empty()) add(Intent{});
  if (moves) {
    add(Motion{});
    add(Touching{});
  }
}

// One call of compile(): each kind that is carried is compiled once, however often it is.
class Compilation {
 public:
  Compilation(const KindCompiler& compiler, Report& report) : compiler_(compiler), report_(report) {}

  std::shared_ptr<const CompiledKind> compile(std::string_view name, const TomlValue& components) {
    const auto kind = std::make_shared<CompiledKind>();
    kind->name = name;
    kind_where_ = components.where;
    const Carries* const carries = add_parts(*kind, components);
    expect_one_mover(*kind);
    // What has shapes has a body.
    if (has(*kind, "shapes") && !has(*kind, "body"))
      kind->parts.push_back({types().of<Body>(), std::make_shared<Body>()});
    ask_parts(*kind);
    add_motion(*kind, types());
    for (const CompiledKind::Part& part : kind->parts)
      part.type->visit_links(const_cast<void*>(part.component.get()), [&](PlaceLink& link) {
        kind->links = kind->links || !link.place.value.empty();
      });
    if (!carries) return kind;
    const Within within(carrying_, name);
    for (const auto& item : carries->things)
      if (!add_carried(*kind, item)) break;
    return kind;
  }

 private:
  // While one is in scope, the kind is among those that are being compiled.
  struct Within {
    Within(std::vector<std::string>& of, std::string_view name) : carrying(of) {
      carrying.emplace_back(name);
    }
    ~Within() { carrying.pop_back(); }
    Within(const Within&) = delete;
    Within& operator=(const Within&) = delete;

    std::vector<std::string>& carrying;
  };

  const ComponentTypes& types() const { return compiler_.binding.types; }

  const Carries* add_parts(CompiledKind& kind, const TomlValue& components) {
    const Carries* carries = nullptr;
    for (const TomlValue::Entry& entry : components.entries) {
      const ComponentTypes::Type* const type = types().find_in_files(entry.key);
      if (!type) {
        report_unknown(entry);
        continue;
      }
      const std::size_t problems = report_.problems().size();
      const std::shared_ptr<void> component = type->parse(entry.value, report_);
      if (report_.problems().size() > problems) broken_.insert(component.get());
      if (type == types().of<Sprite>()) kind.sprite = static_cast<const Sprite*>(component.get());
      if (type == types().of<Carries>()) carries = static_cast<const Carries*>(component.get());
      kind.parts.push_back({type, component});
    }
    return carries;
  }

  void expect_one_mover(const CompiledKind& kind) {
    std::vector<std::string_view> movers = movers_of(kind);
    if (!movers.empty() && !has(kind, "body") && !has(kind, "shapes"))
      report_.error(kind_where_,
                    fmt::format("kind \"{}\" has a {} but no body to move", kind.name, movers.front()));
    if (has(kind, "along_path")) movers.push_back("along_path");
    if (movers.size() > 1)
      report_.error(kind_where_,
                    fmt::format("kind \"{}\" is moved by a {} and by a {}", kind.name, movers[0], movers[1]),
                    "leave one of them out");
    if (const std::vector<std::string_view> pilots = pilots_of(kind); pilots.size() > 1)
      report_.error(
          kind_where_,
          fmt::format("kind \"{}\" is steered by a {} and by a {}", kind.name, pilots[0], pilots[1]),
          "leave one of them out");
  }

  // What each part needs; the sprite comes first, since others ask for its sheet. Nothing else has the parts yet. A part that could not
  // be read whole has its error.
  void ask_parts(const CompiledKind& kind) {
    const OfKind of(kind, kind_where_, compiler_.kinds, compiler_.binding, report_);
    const auto ask = [&](const CompiledKind::Part& part) {
      if (part.type->hooks->need && !broken_.contains(part.component.get()))
        part.type->hooks->need(const_cast<void*>(part.component.get()), of);
    };
    const auto is_sprite = [&](const CompiledKind::Part& part) {
      return part.component.get() == kind.sprite;
    };
    for (const CompiledKind::Part& part : kind.parts)
      if (is_sprite(part)) ask(part);
    for (const CompiledKind::Part& part : kind.parts)
      if (!is_sprite(part)) ask(part);
  }

  void report_unknown(const TomlValue::Entry& entry) {
    if (compiler_.binding.unknown == UnknownComponents::report)
      report_.error(entry.where, fmt::format("no component \"{}\"", entry.key),
                    did_you_mean(entry.key, types().names_in_files()));
  }

  // False when there is no room for more.
  bool add_carried(CompiledKind& kind, const NamedItem<Located<std::string>>& item) {
    const auto& [name, where] = item.value;
    if (std::find(carrying_.begin(), carrying_.end(), name) != carrying_.end()) {
      report_.error(where, fmt::format("\"{}\" carries something that carries it", name),
                    "take one of them out of the ring");
      return true;
    }
    if (carrying_.size() >= most_levels) {
      report_.error(
          where, fmt::format("\"{}\" is carried by something that is carried, and so on, more than {} times",
                             name, most_levels - 1));
      return true;
    }
    const Sheet* const sheet = kind.sprite ? kind.sprite->sheet() : nullptr;
    if (!kind.sprite)
      report_.error(item.where, "a thing without a sprite has no points to attach to");
    else if (sheet && !sheet->missing)
      report_.gather([&] { sheet->point(item.name, item.where); });
    std::shared_ptr<const CompiledKind> carried;
    report_.gather([&, &name = name, &where = where] { carried = carried_kind(name, where); });
    if (!carried) return true;
    kind.links = kind.links || carried->links;
    kind.things += carried->things;
    kind.levels = std::max(kind.levels, carried->levels + 1);
    if (kind.things > most_things ||
        carrying_.size() + static_cast<std::size_t>(carried->levels) > most_levels) {
      report_.error(
          where,
          fmt::format("with \"{}\", kind \"{}\" brings more things to life than it may", name, kind.name),
          fmt::format("at most {}, of which each carries the next at most {} times", most_things,
                      most_levels - 1));
      return false;
    }
    kind.carried.push_back({item.name, std::move(carried)});
    return true;
  }

  std::shared_ptr<const CompiledKind> carried_kind(const std::string& name, const FilePosition& where) {
    if (const auto found = carried_.find(name); found != carried_.end()) return found->second;
    auto compiled = compile(name, compiler_.kinds.kind(name, where));
    return carried_[name] = std::move(compiled);
  }

  static constexpr int most_things = 256;
  static constexpr std::size_t most_levels = 8;

  const KindCompiler& compiler_;
  Report& report_;
  FilePosition kind_where_;
  std::set<const void*> broken_;       // components with errors
  std::vector<std::string> carrying_;  // the kinds that are being compiled, each carried by the one before
  std::map<std::string, std::shared_ptr<const CompiledKind>> carried_;
};

}  // namespace

std::shared_ptr<const CompiledKind> KindCompiler::compile(std::string_view name, const TomlValue& components,
                                                          Report& report) const {
  return Compilation(*this, report).compile(name, components);
}

std::shared_ptr<const CompiledKind> CompiledKinds::get(std::string_view kind, const FilePosition& asked) {
  if (const auto found = compiled_.find(kind); found != compiled_.end()) return found->second;
  return compiled_[std::string(kind)] = with(kind, {}, asked);
}

std::shared_ptr<const CompiledKind> CompiledKinds::with(std::string_view kind, const TomlValue& over,
                                                        const FilePosition& asked) const {
  TomlValue components = compiler_.kinds.kind(kind, asked);
  components.merge(over);
  Report report;
  auto compiled = compiler_.compile(kind, components, report);
  report.throw_if_errors();
  return compiled;
}

std::vector<CompiledKinds::Recompiled> CompiledKinds::recompile(Report& report) {
  std::vector<Recompiled> all;
  std::erase_if(compiled_, [this](const auto& kind) { return !written().has(kind.first); });
  for (auto& [name, kind] : compiled_)
    report.gather([&, &name = name, &kind = kind] {
      auto now = with(name, {});
      all.push_back({std::exchange(kind, now), now});
    });
  return all;
}

}  // namespace vole
