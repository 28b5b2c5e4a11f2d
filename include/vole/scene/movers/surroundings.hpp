// What the tiles and things around a thing do to it when its turn to move begins. All movers read this one value; one of a game's own
// finds it in the same way:
//
//   const vole::Surroundings around = vole::seen_from_above(turn);
//   turn.motion.velocity *= 1 - around.friction * skater.grip * turn.seconds;
//   turn.move((turn.motion.velocity + around.carried) * turn.seconds);
#pragma once

#include "vole/scene/movers/mover_turn.hpp"
#include "vole/world/tile_effects.hpp"

namespace vole {

struct Surroundings {
  // Seen from the side, of the tile that it stands on; from above, of the floor under it. 1 where nothing says one.
  float friction = 1;
  // Pixels a second: by the belt under it, from the side x alone; seen from above also by the current that it is in.
  Vec2 carried{0, 0};
  // At its middle; seen from above at its position. nullptr for none, as ladders.
  const Liquid* liquid = nullptr;
  // From its feet up to its middle; and right below its feet.
  const Ladder* ladder = nullptr;
  const Ladder* ladder_below = nullptr;
};

Surroundings seen_from_side(const MoverTurn& turn);
Surroundings seen_from_above(const MoverTurn& turn);

// What of a tile's is at a point in the level.
const Liquid* liquid_at(const MoverTurn& turn, Vec2 point);
// From its feet, where it is now, up to its middle.
const Ladder* ladder_in_reach(const MoverTurn& turn);

}  // namespace vole
