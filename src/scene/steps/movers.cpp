#include "../tick.hpp"
#include "vole/scene/side_motion.hpp"

namespace vole {

void run_movers(Tick& tick) {
  static const SolidGrid nothing_solid;
  const SolidGrid& grid = tick.world.level ? tick.world.level.solid() : nothing_solid;
  const float seconds = tick.stage.seconds_per_tick();
  Entities& entities = tick.world.entities;
  entities.visit<SideMover, Intent, Body, Motion, Touching, Pose>(
      [&](Entity, SideMover& mover, const Intent& intent, const Body& body, Motion& motion,
          Touching& touching,
          Pose& pose) { move_sideways(grid, intent, seconds, mover, body, motion, touching, pose); });
}

}  // namespace vole
