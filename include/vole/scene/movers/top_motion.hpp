// Walking seen from above: turns intent into motion, one tick at a time.
#pragma once

#include "vole/scene/movers/mover_turn.hpp"
#include "vole/world/top_mover.hpp"

namespace vole {

// Along what holds it, it slides. Belts and currents take it along.
void move_from_above(MoverTurn& turn, TopMover& mover);

}  // namespace vole
