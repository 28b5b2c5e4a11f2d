// Going along lanes: turns intent into motion, one tick at a time.
#pragma once

#include "vole/scene/movers/mover_turn.hpp"
#include "vole/world/grid_mover.hpp"

namespace vole {

void move_on_grid(MoverTurn& turn, GridMover& mover);

}  // namespace vole
