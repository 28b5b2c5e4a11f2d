// How a body moves, and what it touches. Things with a mover have both.
#pragma once

#include "vole/base/describe.hpp"
#include "vole/base/entity.hpp"
#include "vole/base/vec.hpp"

namespace vole {

struct Motion {
  Vec2 velocity{0,
                0};  // pixels a second; of what walks on the ground: x along it, up and down slopes, and y 0
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
  Vec2 ground_normal{0, -1};  // of length 1, away from the ground
  Entity ground_thing;        // that it stands on; none: tiles
  Entity wall_thing;          // that is in its way
  Vec2 came_with{0, 0};       // the velocity before it was held

  bool wall() const { return wall_left || wall_right; }
};
template <class V>
void describe(V& v, Touching& touching) {
  v.state("ground", touching.ground);
  v.state("ceiling", touching.ceiling);
  v.state("wall_left", touching.wall_left);
  v.state("wall_right", touching.wall_right);
  v.state("ground_normal", touching.ground_normal);
  v.state("ground_thing", touching.ground_thing);
  v.state("wall_thing", touching.wall_thing);
  v.state("came_with", touching.came_with);
}

}  // namespace vole
