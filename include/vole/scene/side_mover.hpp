// Walking and jumping seen from the side: turns intent into motion, one tick at a time.
#pragma once

#include "vole/physics/solid_grid.hpp"
#include "vole/scene/components.hpp"

namespace vole {

// Moves the body for `seconds` (one tick), swept against the grid.
void move_sideways(const SolidGrid& grid, const Intent& intent, float seconds, SideMover& mover, Body& body,
                   Pose& pose);

}  // namespace vole
