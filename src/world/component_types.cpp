#include "vole/world/component_types.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <stdexcept>

#include "vole/asset/sheet.hpp"
#include "vole/base/field.hpp"
#include "vole/base/names.hpp"
#include "vole/base/positions.hpp"
#include "vole/base/reading.hpp"
#include "vole/input/intent.hpp"
#include "vole/world/along_path.hpp"
#include "vole/world/attached.hpp"
#include "vole/world/body.hpp"
#include "vole/world/fly_mover.hpp"
#include "vole/world/grid_mover.hpp"
#include "vole/world/kind_of.hpp"
#include "vole/world/lamp.hpp"
#include "vole/world/level_edge.hpp"
#include "vole/world/mind.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/own_time.hpp"
#include "vole/world/place_link.hpp"
#include "vole/world/player.hpp"
#include "vole/world/pose.hpp"
#include "vole/world/probes.hpp"
#include "vole/world/pushable.hpp"
#include "vole/world/routine.hpp"
#include "vole/world/sequence.hpp"
#include "vole/world/shapes.hpp"
#include "vole/world/side_mover.hpp"
#include "vole/world/sprite.hpp"
#include "vole/world/switches.hpp"
#include "vole/world/tags.hpp"
#include "vole/world/tile_effects.hpp"
#include "vole/world/top_mover.hpp"
#include "vole/world/world.hpp"
#include "vole/world/zone.hpp"

namespace vole {

ComponentTypes::ComponentTypes() {
  add<Body>("body");
  add<Sprite>("sprite");
  add<Probes>("probes");
  add<Lamp>("lamp");
  add<LevelEdge>("level_edge");
  add<AlongPath>("along_path");
  add<OwnTime>("own_time");
  add<Pushable>("pushable");
  add<Sequences>("sequences");
  add<Shapes>("shapes");
  add<Switches>("switches");
  add<Tags>("tags");
  add<Belt>("belt");
  add<Ladder>("ladder");
  add<Liquid>("liquid");
  add_mover<FlyMover>("fly_mover");
  add_mover<GridMover>("grid_mover", {.up_and_down = true});
  add_mover<SideMover>("side_mover", {.jump = true});
  add_mover<TopMover>("top_mover", {.up_and_down = true});
  add_pilot<Mind>("mind");
  add_pilot<Player>("player");
  add_pilot<Routine>("routine");
  add<Carries>("carries");
  add<Attached>("attached", Use::state);
  add<FromPlace>("from_place", Use::state);
  add<Intent>("intent", Use::state);
  add<KindOf>("kind", Use::state);
  add<Motion>("motion", Use::state);
  add<Pose>("pose", Use::state);
  add<SequencesBegun>("sequences_begun", Use::state);
  add<Touching>("touching", Use::state);
  add<Zone>("zone", Use::state);
}

void ComponentTypes::add(Type type) {
  if (by_number(type.number))
    throw std::logic_error(fmt::format("the type of the component \"{}\" is known as \"{}\" already",
                                       type.name, by_number(type.number)->name));
  const auto at =
      std::lower_bound(types_.begin(), types_.end(), type.name,
                       [](const Type& known, const std::string& name) { return known.name < name; });
  if (at != types_.end() && at->name == type.name)
    throw std::logic_error(fmt::format("two components are named \"{}\"", type.name));
  type.described->expect_state();
  types_.insert(at, std::move(type));
}

std::shared_ptr<void> ComponentTypes::Type::parse(const TomlValue& table, Report& report) const {
  std::shared_ptr<void> component = described->make();
  described->read(table, component.get(), {}, report, TableOf::file);
  return component;
}

void ComponentTypes::Type::attach(Entities& entities, Entity entity, const void* component) const {
  entities.pool(number).add_copy(entities.checked(entity), component);
}

TomlValue ComponentTypes::Type::schema() const {
  return described->schema({});
}

const std::vector<FieldInfo>& ComponentTypes::Type::fields() const {
  return numeric_fields(*described);
}

const void* ComponentTypes::Type::find(const Entities& entities, Entity entity) const {
  return entities.alive(entity) ? const_cast<Entities&>(entities).pool(number).find(entity.index) : nullptr;
}

FieldRef ComponentTypes::Type::field(Entities& entities, Entity entity, std::size_t index) const {
  void* const component = entities.alive(entity) ? entities.pool(number).find(entity.index) : nullptr;
  return component && index < fields().size() ? FieldRef(*fields()[index].field, component) : FieldRef();
}

Vec4 ComponentTypes::Type::value_of(const void* component, std::size_t index) const {
  const DescribedField& field = *fields()[index].field;
  return field.type->parts_of(field.in(component));
}

void ComponentTypes::Type::visit_links(void* component, const LinkVisit& visit) const {
  described->visit_all(described_type<PlaceLink>(), component,
                       [&visit](void* link) { visit(*static_cast<PlaceLink*>(link)); });
}

template <class Visit>
void ComponentTypes::Type::each(Entities& entities, const Visit& visit) const {
  detail::Pool& pool = entities.pool(number);
  for (std::size_t i = 0; i < pool.places(); ++i)
    if (const std::uint32_t owner = pool.owner_at(i); owner != detail::Pool::nowhere)
      visit(entities.at(owner), pool.at(i));
}

void ComponentTypes::Type::visit_all_links(Entities& entities,
                                           const std::function<void(Entity, PlaceLink&)>& visit) const {
  each(entities, [&](Entity entity, void* component) {
    visit_links(component, [&](PlaceLink& link) { visit(entity, link); });
  });
}

void ComponentTypes::Type::move_positions(Entities& entities, const OriginMove& by,
                                          const std::function<bool(Entity)>& stays) const {
  each(entities, [&](Entity entity, void* component) {
    if (!stays(entity)) described->move_origin(component, {}, by);
  });
}

void ComponentTypes::Type::bind(const OnThing& on) const {
  if (!hooks->bind) return;
  if (void* const component = on.world.entities.pool(number).find(on.thing.index)) hooks->bind(component, on);
}

void ComponentTypes::Type::bind_all(World& world, const Binding& binding, Report& report) const {
  if (!hooks->bind) return;
  each(world.entities, [&](Entity entity, void* component) {
    report.gather([&] { hooks->bind(component, {world, entity, binding}); });
  });
}

const ComponentTypes::Type* ComponentTypes::find(std::string_view name) const {
  return find_named(types_, name);
}

const ComponentTypes::Type* ComponentTypes::by_number(std::size_t number) const {
  const auto found =
      std::find_if(types_.begin(), types_.end(), [number](const Type& t) { return t.number == number; });
  return found == types_.end() ? nullptr : &*found;
}

const ComponentTypes::Type* ComponentTypes::find_in_files(std::string_view name) const {
  const Type* const found = find(name);
  return found && found->use == Use::files ? found : nullptr;
}

std::vector<std::string> ComponentTypes::names_in_files() const {
  std::vector<std::string> names;
  for (const Type& type : types_)
    if (type.use == Use::files) names.push_back(type.name);
  return names;
}

FieldRef BoundField::in(Entities& entities, Entity entity) const {
  return type->field(entities, entity, index);
}

BoundField bind_field(const ComponentTypes& types, std::string_view component, std::string_view field) {
  const ComponentTypes::Type* const type = types.find(component);
  if (!type) return {};
  const std::vector<FieldInfo>& fields = type->fields();
  const std::size_t index = index_named(fields, field);
  if (index == fields.size()) return {};
  return {type, index, fields[index].parts, fields[index].is_position, fields[index].in_cells};
}

void check_tracks(const Sheet& sheet, const ComponentTypes& types, UnknownComponents unknown,
                  Report& report) {
  for (const Track& track : sheet.tracks)
    for (const TrackField& wanted : track.fields) {
      const ComponentTypes::Type* const type = types.find(wanted.component);
      if (!type) {
        if (unknown == UnknownComponents::report)
          report.error(wanted.where, fmt::format("no component \"{}\"", wanted.component),
                       did_you_mean(wanted.component, names_of(types.all())));
        continue;
      }
      const BoundField bound = bind_field(types, wanted.component, wanted.field);
      if (!bound.type)
        report.error(
            wanted.where,
            fmt::format("\"{}\" has no number, pair or colour \"{}\"", wanted.component, wanted.field),
            did_you_mean(wanted.field, names_of(type->fields())));
      else if (bound.parts != wanted.parts)
        report.error(wanted.where, fmt::format("\"{}\" of \"{}\" is {}", wanted.field, wanted.component,
                                               word_for_parts(bound.parts)));
    }
}

}  // namespace vole
