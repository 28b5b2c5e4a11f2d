// All places in the level that a described value holds, moved together when the level's origin moves along.
//
//   v.state("nest", bird.nest, position());      // in a description
//   move_positions(bird, by);                    // moves bird.nest
#pragma once

#include "vole/base/described_type.hpp"

namespace vole {

// How far places move: the same distance in cells and in pixels.
struct OriginMove {
  IVec2 cells{0, 0};
  Vec2 pixels{0, 0};
};

template <Described T>
void move_positions(T& value, const OriginMove& by) {
  described_type<T>().move_origin(&value, {}, by);
}

}  // namespace vole
