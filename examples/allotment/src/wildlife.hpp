// What moves in the garden by itself.
#pragma once

#include <vole/vole.hpp>

// Flies there and back round the place where it began, on a long flat figure of eight.
struct Flight {
  float reach = 48;   // pixels to either side
  float rise = 8;     // and up and down
  float seconds = 4;  // there and back
  vole::Vec2 middle{0, 0};
  std::int64_t ticks = 0;
};
template <class V>
void describe(V& v, Flight& flight) {
  v("reach", flight.reach, vole::within(0, 1000));
  v("rise", flight.rise, vole::within(0, 1000));
  v("seconds", flight.seconds, vole::within(0.1, 600));
  v.state("middle", flight.middle);
  v.state("ticks", flight.ticks);
}

struct Leaf {
  float fall = 20;  // pixels a second
};
template <class V>
void describe(V& v, Leaf& leaf) {
  v("fall", leaf.fall, vole::within(1, 1000));
}

void fly(vole::Stage& stage);
// Leaves come down wherever the camera is: a leaf that sinks out of sight begins again above it.
void scatter_leaves(vole::Stage& stage);
void drop_leaves(vole::Stage& stage);
