// How a body moves, and what it touches. Things with a mover have both.
#pragma once

#include "vole/base/describe.hpp"
#include "vole/base/vec.hpp"

namespace vole {

struct Motion {
  Vec2 velocity{0, 0};   // pixels a second
  Vec2 remainder{0, 0};  // motion smaller than the lattice, kept for the next tick
};
template <class V>
void describe(V& v, Motion& motion) {
  v.state("velocity", motion.velocity);
  v.state("remainder", motion.remainder);
}

// As the last move left it.
struct Touching {
  bool ground = false;
  bool wall = false;
};
template <class V>
void describe(V& v, Touching& touching) {
  v.state("ground", touching.ground);
  v.state("wall", touching.wall);
}

}  // namespace vole
