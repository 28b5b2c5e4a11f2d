// What a thing wants to do this tick. Pilots write it, movers read it: a mover cannot tell a person from a
// mind.
#pragma once

#include "vole/base/vec.hpp"

namespace vole {

struct Intent {
  Vec2 direction{0, 0};       // each part in [-1, 1]
  bool jump_pressed = false;  // begun this tick
  bool jump_held = false;
  bool drop_pressed = false;  // through what is one-way
  bool dash_pressed = false;
  bool act_pressed = false;  // what a thing does besides moving: its scene knows
  bool act_held = false;
};
template <class V>
void describe(V& v, Intent& intent) {
  v.state("direction", intent.direction);
  v.state("jump_pressed", intent.jump_pressed);
  v.state("jump_held", intent.jump_held);
  v.state("drop_pressed", intent.drop_pressed);
  v.state("dash_pressed", intent.dash_pressed);
  v.state("act_pressed", intent.act_pressed);
  v.state("act_held", intent.act_held);
}

// What a mover cannot do without: the controls of a person that steers it must have it.
struct NeededIntent {
  bool up_and_down = false;
  bool jump = false;
};

}  // namespace vole
