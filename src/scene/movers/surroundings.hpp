// What the tiles on which a thing stands, and in which it is, do to it.
#pragma once

#include "vole/scene/movers/mover_turn.hpp"
#include "vole/world/tile_effects.hpp"

namespace vole {

// Of the tile under the middle of what stands on tiles, or else under one of its ends.
float ground_friction(const MoverTurn& turn);
// With which what it stands on takes it along, seen from the side: pixels a second.
float belt_speed(const MoverTurn& turn);
// The same of what is under it, seen from above; the friction there; and the liquid at its feet.
Vec2 drift(const MoverTurn& turn);
float friction_below(const MoverTurn& turn);
// At a point in the level; nullptr for none.
const Liquid* liquid_at(const MoverTurn& turn, Vec2 point);
const Ladder* ladder_at(const MoverTurn& turn, Vec2 point);

}  // namespace vole
