// Things of a compiled kind come to life, and find those that they refer to.
#include <fmt/core.h>

#include <map>
#include <optional>
#include <utility>

#include "vole/level/level.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/world/attached.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/kind_of.hpp"
#include "vole/world/level_now.hpp"
#include "vole/world/place_link.hpp"
#include "vole/world/pose.hpp"
#include "vole/world/world.hpp"

namespace vole {

void expect_in_level(const CompiledKind& kind, const Level* level, const Level* piece) {
  const InLevel in(level, piece);
  for (const CompiledKind::Part& part : kind.parts) {
    if (part.type->hooks->expect) part.type->hooks->expect(part.component.get(), in);
    // Links are only looked at.
    part.type->visit_links(const_cast<void*>(part.component.get()),
                           [&](PlaceLink& link) { in.expect_place(link.place); });
  }
  for (const CompiledKind::Carried& carried : kind.carried) expect_in_level(*carried.kind, level, piece);
}

namespace {

// Things by the piece and the name of the place that they are from.
using NamedThings = std::map<std::pair<std::uint32_t, std::string_view>, Entity>;

NamedThings named_things(const World& world) {
  NamedThings things;
  world.entities.visit<FromPlace>([&](Entity entity, const FromPlace& from) {
    const LevelPlace* const place = world.level.place(from);
    if (place && !place->name.empty() && !world.entities.removed(entity))
      things[{from.piece, place->name}] = entity;
  });
  return things;
}

}  // namespace

void link_places(World& world, const ComponentTypes& types) {
  if (!world.level) return;
  std::optional<NamedThings> things;
  for (const ComponentTypes::Type& type : types.all())
    type.visit_all_links(world.entities, [&](Entity entity, PlaceLink& link) {
      if (link.place.value.empty()) return;
      const FromPlace* const from = std::as_const(world.entities).find<FromPlace>(entity);
      const std::uint32_t piece = from ? from->piece : 0;
      // What came with a piece that is gone keeps what it has.
      if (piece != 0 && !world.level.piece(piece)) return;
      if (!things) things = named_things(world);
      const auto found = things->find({piece, link.place.value});
      link.thing = found == things->end() ? Entity{} : found->second;
    });
}

Entity put_down(World& world, const CompiledKind& kind, Vec2 at, const Binding& binding) {
  Entities& entities = world.entities;
  const Entity entity = entities.create();
  const Vec2 stands = on_lattice(at);
  entities.add(entity, KindOf{kind.name});
  entities.add(entity, Pose{stands, stands});
  for (const CompiledKind::Part& part : kind.parts) part.type->attach(entities, entity, part.component.get());
  for (const CompiledKind::Part& part : kind.parts) part.type->bind({world, entity, binding});
  for (const CompiledKind::Carried& carried : kind.carried) {
    const Entity thing = put_down(world, *carried.kind, stands, binding);
    entities.add(thing, Attached{entity, carried.point, {0, 0}, true});
  }
  return entity;
}

Entity put_down(World& world, const CompiledKind& kind, const LevelPlace& place, const FromPlace& from,
                const Binding& binding) {
  const Entity entity = put_down(world, kind, place.at + world.level.offset(from.piece), binding);
  world.entities.get<Pose>(entity).mirrored = place.mirrored;
  world.entities.add(entity, from);
  return entity;
}

}  // namespace vole
