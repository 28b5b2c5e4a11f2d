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

// What the last move met, by side of the body.
struct Touching {
  bool ground = false;
  bool ceiling = false;
  bool wall_left = false;
  bool wall_right = false;

  bool wall() const { return wall_left || wall_right; }
};
template <class V>
void describe(V& v, Touching& touching) {
  v.state("ground", touching.ground);
  v.state("ceiling", touching.ceiling);
  v.state("wall_left", touching.wall_left);
  v.state("wall_right", touching.wall_right);
}

}  // namespace vole
