// Walking seen from above: turns intent into motion, one tick at a time.
#pragma once

#include "vole/input/intent.hpp"
#include "vole/physics/solid_grid.hpp"
#include "vole/world/body.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/pose.hpp"
#include "vole/world/top_mover.hpp"

namespace vole {

// Moves the body for `seconds` (one tick), swept against the grid.
void move_from_above(const SolidGrid& grid, const Intent& intent, float seconds, TopMover& mover,
                     const Body& body, Motion& motion, Touching& touching, Pose& pose);

}  // namespace vole
