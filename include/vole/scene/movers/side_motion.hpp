// Walking and jumping seen from the side: turns intent into motion, one tick at a time.
#pragma once

#include "vole/scene/movers/mover_turn.hpp"
#include "vole/world/side_mover.hpp"

namespace vole {

// On the ground it goes along it, as fast up and down slopes as on flats, and in the air it falls. What comes down on a slope
// that can be walked stands: it keeps its speed across, and does not slip.
void move_sideways(MoverTurn& turn, SideMover& mover);

}  // namespace vole
