// Moving a body through a level: what every mover ends with, also one of a game's own (see Stage::move).
#pragma once

#include "vole/physics/sweep.hpp"
#include "vole/world/body.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/pose.hpp"

namespace vole {

// Moves the body by so many pixels, swept against the grid; along a wall it slides. Positions are on the lattice of 1/256
// pixel: what is left of `by` is kept in the motion's remainder for the next time, and dropped where the body is held.
// Says in `touching` what was met.
void move_body(const SolidGrid& grid, Vec2 by, const Body& body, Motion& motion, Touching& touching,
               Pose& pose);

}  // namespace vole
