// Things that give way to who walks into them.
#pragma once

#include "scene/tick.hpp"
#include "vole/scene/movers/mover_turn.hpp"

namespace vole {

// After a thing was held on its way: what it pushes against goes on, as far as there is room, and the thing after it.
void push_on(Tick& tick, Entity thing, MoverTurn& turn);

}  // namespace vole
