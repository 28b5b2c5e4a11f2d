// What tiles do to who is on or in them, in any layer of a level. In a tileset:
//
//   [tiles.rungs]
//   cell = [3, 1]
//   ladder = {}                            # a side_mover with `climb` gets hold of it by pushing up
//
//   [tiles.brook]
//   cell = [4, 1]
//   liquid = { current = [20, 0] }         # a side_mover with `swim` swims in it, others fall through; a top_mover drifts
//
//   [tiles.belt]
//   cell = [5, 1]
//   solid = true
//   belt = { speed = [30, 0] }             # takes along what stands on it; also for things, in kinds.toml
//
// How slippery ground is says `friction` of its tile.
#pragma once

#include "vole/base/describe.hpp"
#include "vole/base/vec.hpp"

namespace vole {

// So that its top can be stood on, the uppermost tile of a ladder is solid with one_way = "up".
struct Ladder {
  float speed = 1;  // share of what its climbers do
};
template <class V>
void describe(V& v, Ladder& ladder) {
  v("speed", ladder.speed, within(0, 100));
}

struct Liquid {
  Vec2 current{0, 0};  // pixels a second
  float sink = 20;     // pixels a second at which one sinks who does nothing; below 0 one rises
  float thick = 400;   // pixels a second, each second, by which speed changes in it
};
template <class V>
void describe(V& v, Liquid& liquid) {
  v("current", liquid.current, within(-100000, 100000));
  v("sink", liquid.sink, within(-100000, 100000));
  v("thick", liquid.thick, within(0, 1e6));
}

struct Belt {
  Vec2 speed{0, 0};  // pixels a second; seen from the side x alone
};
template <class V>
void describe(V& v, Belt& belt) {
  v("speed", belt.speed, within(-100000, 100000));
}

}  // namespace vole
