// Flying and floating: turns intent into motion, one tick at a time.
#pragma once

#include "vole/scene/movers/mover_turn.hpp"
#include "vole/world/fly_mover.hpp"

namespace vole {

void move_flying(MoverTurn& turn, FlyMover& mover);

}  // namespace vole
