// Sheets and levels whose files have changed are taken over between two ticks, and what code has added or renamed is bound.
#include <algorithm>

#include "scene/cue_call.hpp"
#include "scene/level_cameras.hpp"
#include "scene/level_places.hpp"
#include "scene/tick.hpp"
#include "vole/base/names.hpp"
#include "vole/level/level.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/world/along_path.hpp"
#include "vole/world/body.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/sprite.hpp"
#include "vole/world/zone.hpp"

namespace vole {
namespace {

bool same_place(const LevelPlace& a, const LevelPlace& b) {
  return a.kind == b.kind && a.at == b.at && a.name == b.name;
}

// Of all things: what is new or other than when it was bound.
void bind_things(Tick& tick) {
  Report report;
  for (const ComponentTypes::Type& type : tick.setting.binding().types.all())
    type.bind_all(tick.world, tick.setting.binding(), report);
  report.throw_if_errors();
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
void take_places(const LevelNow& before, std::uint32_t piece, Tick& tick) {
  Entities& entities = tick.world.entities;
  const std::vector<LevelPlace>& places = tick.world.level.places(piece);
  const std::vector<LevelPlace>& old_places = before.places(piece);
  std::vector<bool> taken(places.size(), false);
  entities.visit<FromPlace>([&](Entity entity, FromPlace& from) {
    if (from.piece != piece) return;
    std::size_t i = 0;
    while (i < places.size() && (taken[i] || !same_place(places[i], old_places.at(from.place)))) ++i;
    if (i == places.size()) return entities.remove(entity);
    from.place = static_cast<std::uint32_t>(i);
    taken[i] = true;
  });
  // Places whose things had left before the change were not taken, and stay empty.
  for (std::size_t i = 0; i < places.size(); ++i) {
    const auto was_there = [&](const LevelPlace& old) { return same_place(old, places[i]); };
    if (taken[i] || std::any_of(old_places.begin(), old_places.end(), was_there)) continue;
    put_place(tick.setting, tick.world, {static_cast<std::uint32_t>(i), piece, places[i].keep});
  }
}

// The level in its newest version. Throws Error for what its places ask for and cannot have.
LevelNow newest_level(Tick& tick) {
  LevelNow newest = tick.world.level;
  newest.bind(tick.setting.binding());
  expect_places(tick.setting, newest);
  return newest;
}

void take_level(Tick& tick) {
  World& world = tick.world;
  const LevelNow before = world.level;
  const LevelCameras cameras(world);
  try {
    world.level = newest_level(tick);
  } catch (const Error&) {
    world.level.refuse_newer();
    throw;
  }
  cameras.follow();
  world.find_layers();
  take_places(before, 0, tick);
  put_zones(world);
  for (const PutPiece& piece : world.level.pieces()) {
    if (piece.leaves || piece.things < before.places(piece.number).size()) continue;
    take_places(before, piece.number, tick);
    world.level.all_things_there(piece.number);
    put_zones(world, piece.number);
  }
  world.entities.visit<AlongPath>([&](Entity entity, AlongPath& mover) {
    if (mover.begun && !mover.path.value.empty()) take_path(mover, entity, world);
  });
  link_places(world, tick.setting.binding().types);
  keep_out_of_walls(world);
}

}  // namespace

void take_changed_files(Tick& tick) {
  call_cue(
      tick, [] { return std::string(); }, [&] { bind_things(tick); });
  if (tick.world.level.outdated()) take_level(tick);
}

}  // namespace vole
