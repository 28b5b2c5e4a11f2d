// Sheets and levels whose files have changed are taken over between two ticks.
#include <algorithm>

#include "../tick.hpp"
#include "vole/base/names.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/world/body.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/path_mover.hpp"
#include "vole/world/zone.hpp"

namespace vole {
namespace {

bool same_place(const LevelPlace& a, const LevelPlace& b) {
  return a.kind == b.kind && a.at == b.at && a.name == b.name;
}

void take_sheets(Tick& tick) {
  tick.world.entities.visit<Sprite>([&](Entity, Sprite& sprite) {
    if (!sprite.links.asset || sprite.links.asset.shared() == sprite.links.sheet) return;
    tick.scratch.track_fields.clear();
    bind_sprite(sprite, tick.setting.binding());
  });
}

// Where a new wall is at a thing's position, the thing goes up to the first free spot above it.
void keep_out_of_walls(World& world) {
  const SolidGrid& solid = world.level.solid();
  world.entities.visit<Touching, Motion, Body, Pose>([&](Entity, const Touching&, Motion& motion,
                                                         const Body& body, Pose& pose) {
    Vec2 at = pose.at;
    for (int rows = world.level.size().y; rows > 0 && at.y > 0 && solid.blocks(body.box(at), false); --rows)
      at.y -= 1;
    if (at == pose.at || solid.blocks(body.box(at), false)) return;
    pose.at = pose.before = on_lattice(at);
    motion.velocity = {0, 0};
  });
}

// What was placed and still is goes on as it was; what is placed now and was not comes to life; what is
// placed no more leaves.
void take_places(const std::vector<LevelPlace>& before, Tick& tick) {
  Entities& entities = tick.world.entities;
  const std::vector<LevelPlace>& places = tick.world.level.file().places;
  std::vector<bool> taken(places.size(), false);
  entities.visit<FromPlace>([&](Entity entity, FromPlace& from) {
    std::size_t i = 0;
    while (i < places.size() && (taken[i] || !same_place(places[i], before.at(from.place)))) ++i;
    if (i == places.size()) return entities.remove(entity);
    from.place = static_cast<std::uint32_t>(i);
    taken[i] = true;
  });
  // Places whose things had left before the change were not taken, and stay empty.
  for (std::size_t i = 0; i < places.size(); ++i) {
    const LevelPlace& place = places[i];
    const auto was_there = [&](const LevelPlace& old) { return same_place(old, place); };
    if (taken[i] || std::any_of(before.begin(), before.end(), was_there)) continue;
    const Entity entity = tick.stage.spawn(place.kind, place.at, place.overrides, place.where);
    entities.get<Pose>(entity).faces_left = place.faces_left;
    entities.add(entity, FromPlace{static_cast<std::uint32_t>(i)});
  }
}

// The level in its newest version. Throws Error for what its places ask for and cannot have.
LevelNow newest_level(Tick& tick) {
  LevelNow newest = tick.world.level;
  newest.bind(tick.setting.binding());
  CompiledKinds& kinds = tick.setting.kinds;
  Report report;
  for (const LevelPlace& place : newest.file().places) {
    try {
      expect_in_level(
          *(place.overrides.entries.empty() ? kinds.get(place.kind, place.where)
                                            : kinds.with(place.kind, place.overrides, place.where)),
          newest);
    } catch (const Error& error) {
      report.add(error);
    }
  }
  report.throw_if_errors();
  return newest;
}

void take_level(Tick& tick) {
  World& world = tick.world;
  const std::shared_ptr<const Level> before = world.level.version();
  try {
    world.level = newest_level(tick);
  } catch (const Error&) {
    world.level.refuse_newer();
    throw;
  }
  world.camera.bounds = {{0, 0}, Vec2(world.level.size())};
  const auto& layers = world.level.file().layers;
  // A layer that is gone is not worth ending the game for: its things go to the front.
  world.entities.visit<Sprite>([&](Entity, Sprite& sprite) {
    sprite.links.layer = std::min(index_named(layers, sprite.layer_name.value), layers.size() - 1);
  });
  take_places(before->places, tick);
  put_zones(world);
  world.entities.visit<PathMover>([&](Entity, PathMover& mover) {
    const LevelPath* const path = find_named(world.level.file().paths, mover.path.value);
    if (path && mover.begun) take_path(mover, *path);
  });
  link_places(world, tick.setting.binding().types);
  keep_out_of_walls(world);
}

}  // namespace

void take_changed_files(Tick& tick) {
  take_sheets(tick);
  if (tick.world.level.outdated()) take_level(tick);
}

}  // namespace vole
