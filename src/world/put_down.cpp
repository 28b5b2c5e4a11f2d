// Things of a compiled kind come to life, and find those that they refer to.
#include <fmt/format.h>

#include <map>
#include <utility>

#include "vole/physics/subpixel.hpp"
#include "vole/world/attached.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/kind_of.hpp"
#include "vole/world/path_mover.hpp"
#include "vole/world/pose.hpp"

namespace vole {

void expect_in_level(const CompiledKind& kind, const LevelNow& level) {
  if (kind.sprite) layer_of(*kind.sprite, level);
  for (const CompiledKind::Part& part : kind.parts) {
    if (part.type->number == detail::component_type<PathMover>()) {
      const auto& [name, where] = static_cast<const PathMover*>(part.component.get())->path;
      if (!name.empty() && !level)
        throw Error(where, fmt::format("no path \"{}\": no level is loaded", name));
      if (!name.empty()) level.file().path(name, where);
    }
    // Links are only looked at.
    part.type->visit_links(const_cast<void*>(part.component.get()), [&](PlaceLink& link) {
      const auto& [name, where] = link.place;
      if (name.empty()) return;
      if (!level) throw Error(where, fmt::format("no place \"{}\": no level is loaded", name));
      level.file().place(name, where);
    });
  }
  for (const CompiledKind::Carried& carried : kind.carried) expect_in_level(*carried.kind, level);
}

void link_places(World& world, const ComponentTypes& types) {
  if (!world.level) return;
  std::map<std::string_view, Entity> things;
  bool known = false;
  const auto find = [&](const std::string& name) {
    if (!known)
      std::as_const(world.entities).visit<FromPlace>([&](Entity entity, const FromPlace& from) {
        const std::string& its = world.level.file().places[from.place].name;
        if (!its.empty() && !world.entities.removed(entity)) things[its] = entity;
      });
    known = true;
    const auto found = things.find(name);
    return found == things.end() ? Entity{} : found->second;
  };
  for (const ComponentTypes::Type& type : types.all())
    type.visit_all_links(world.entities, [&](Entity, PlaceLink& link) {
      if (!link.place.value.empty()) link.thing = find(link.place.value);
    });
}

Entity put_down(World& world, const CompiledKind& kind, Vec2 at, const Binding& binding) {
  Entities& entities = world.entities;
  const Entity entity = entities.create();
  const Vec2 stands = on_lattice(at);
  entities.add(entity, KindOf{kind.name});
  entities.add(entity, Pose{stands, stands});
  for (const CompiledKind::Part& part : kind.parts) part.type->attach(entities, entity, part.component.get());
  if (kind.sprite) {
    Sprite& sprite = entities.get<Sprite>(entity);
    // A sheet may have changed since the kind was compiled.
    if (sprite.links.asset.shared() != sprite.links.sheet) bind_sprite(sprite, binding);
    sprite.links.layer = layer_of(sprite, world.level);
  }
  for (const CompiledKind::Carried& carried : kind.carried) {
    const Entity thing = put_down(world, *carried.kind, stands, binding);
    entities.add(thing, Attached{entity, carried.point, {0, 0}, true});
  }
  return entity;
}

}  // namespace vole
