// Things at the edges of the level: held, brought in again on the other side, or gone.
#pragma once

#include <array>

#include "vole/scene/movers/mover_turn.hpp"
#include "vole/world/level_edge.hpp"
#include "vole/world/world.hpp"

namespace vole {

struct Tick;

// How far away it is, too, where a box crosses an edge behind which its thing comes in again: up to three other places; {0, 0} for none.
using OtherSides = std::array<Vec2, 3>;
OtherSides other_sides(const LevelEdge* edge, const LevelNow* level, const Rect& box);
inline OtherSides other_sides(const MoverTurn& turn, const Rect& box) {
  return other_sides(turn.edge, turn.level, box);
}
// The same of a thing that is drawn, or of what it is attached to.
OtherSides other_sides(const World& world, Entity thing);

// After all have moved.
void keep_in_level(Tick& tick);

}  // namespace vole
