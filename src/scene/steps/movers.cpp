#include "../tick.hpp"
#include "vole/scene/side_motion.hpp"
#include "vole/scene/top_motion.hpp"

namespace vole {

void run_movers(Tick& tick) {
  const SolidGrid& grid = tick.stage.solid();
  const float seconds = tick.stage.seconds_per_tick();
  Entities& entities = tick.world.entities;
  entities.visit<SideMover, Intent, Body, Motion, Touching, Pose>(
      [&](Entity, SideMover& mover, const Intent& intent, const Body& body, Motion& motion,
          Touching& touching,
          Pose& pose) { move_sideways(grid, intent, seconds, mover, body, motion, touching, pose); });
  entities.visit<TopMover, Intent, Body, Motion, Touching, Pose>(
      [&](Entity, TopMover& mover, const Intent& intent, const Body& body, Motion& motion, Touching& touching,
          Pose& pose) { move_from_above(grid, intent, seconds, mover, body, motion, touching, pose); });
}

}  // namespace vole
