// Intent becomes motion, one thing after the other in the order in which they got their movers. What stands on one that
// moves goes along.
#include "../carrying.hpp"
#include "vole/scene/side_motion.hpp"
#include "vole/scene/top_motion.hpp"

namespace vole {
namespace {

// Of the tile under the middle of what stands on tiles, or else under one of its ends.
float ground_friction(const LevelNow& level, const Touching& touching, const CollisionBody& body) {
  if (!level || !touching.ground || touching.ground_thing) return 1;
  const Rect box = body.bounds();
  const float below = box.bottom() + 0.5f;
  for (const float x : {box.left() + box.size.x / 2, box.left() + 0.5f, box.right() - 0.5f})
    if (const IVec2 cell = level.cell_at({x, below}); level.solid().solid(cell.x, cell.y))
      return level.friction(cell);
  return 1;
}

template <class Work>
void move(Tick& tick, Entity entity, Motion& motion, Touching& touching, Pose& pose, const Work& work) {
  SolidThings& solids = tick.stage.solids();
  if (tick.stage.removed(entity) || !solids.has(entity)) return;
  Carrying carrying(tick);
  carrying.before_move(entity);
  const Pose before = pose;
  Moving moving{solids.world(), solids.body(entity), solids.rules(entity, tick.stage.categories()), &solids};
  moving.friction = ground_friction(tick.world.level, touching, moving.body);
  const Vec2 velocity = motion.velocity;
  work(moving);
  // What the mover itself has added is in it where nothing held the body.
  touching.came_with = touching.wall() || touching.ground || touching.ceiling ? velocity : motion.velocity;
  if (!carrying.after_move(entity, pose.at - before.at)) {
    pose.at = before.at;
    motion.velocity = {0, 0};
  }
  solids.put(entity, pose.at);
}

}  // namespace

void run_movers(Tick& tick) {
  const float seconds = tick.stage.seconds_per_tick();
  Entities& entities = tick.world.entities;
  tick.stage.update_bodies();
  entities.visit<SideMover, Intent, Body, Motion, Touching, Pose>(
      [&](Entity entity, SideMover& mover, const Intent& intent, const Body&, Motion& motion,
          Touching& touching, Pose& pose) {
        move(tick, entity, motion, touching, pose,
             [&](Moving& moving) { move_sideways(moving, intent, seconds, mover, motion, touching, pose); });
      });
  entities.visit<TopMover, Intent, Body, Motion, Touching, Pose>(
      [&](Entity entity, TopMover& mover, const Intent& intent, const Body&, Motion& motion,
          Touching& touching, Pose& pose) {
        move(tick, entity, motion, touching, pose, [&](Moving& moving) {
          move_from_above(moving, intent, seconds, mover, motion, touching, pose);
        });
      });
}

}  // namespace vole
