// Intent becomes motion, one thing after the other in the order in which they got their movers. What stands on one that
// moves goes along.
#include "../carrying.hpp"
#include "vole/scene/side_motion.hpp"
#include "vole/scene/top_motion.hpp"

namespace vole {
namespace {

template <class Work>
void move(Tick& tick, Entity entity, Motion& motion, Touching& touching, Pose& pose, const Work& work) {
  SolidThings& solids = tick.stage.solids();
  if (tick.stage.removed(entity) || !solids.has(entity)) return;
  Carrying carrying(tick);
  carrying.before_move(entity);
  const Pose before = pose;
  Moving moving{solids.world(), solids.body(entity), solids.rules(entity, tick.stage.categories()), &solids};
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
