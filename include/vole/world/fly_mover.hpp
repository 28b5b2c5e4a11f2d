// Flies, floats or drives without a road: thrust against drag. In kinds.toml:
//
//   fly_mover = { thrust = 200, drag = 1, steering = "turns" }      # a canoe: left and right turn it, up thrusts
//   fly_mover = { thrust = 90, turn = 120, steering = "seeks" }     # homing: turns towards where its pilot points
//   fly_mover = { thrust = 300, drag = 3 }                          # thrust in every direction
#pragma once

#include <array>
#include <cstdint>
#include <string_view>

#include "vole/base/describe.hpp"

namespace vole {

enum class Steering : std::uint8_t {
  free,   // thrust goes where its pilot points
  turns,  // the pilot's left and right turn it, up thrusts ahead, and down against that
  seeks   // it turns towards where its pilot points, and thrusts ahead all the time
};
constexpr auto enum_names(Steering) {
  return std::array<std::string_view, 3>{"free", "turns", "seeks"};
}

struct FlyMover {
  float thrust = 200;  // pixels a second, each second
  float drag = 1;      // share of the speed that it loses a second, while that is little
  float speed = 400;   // the fastest, in pixels a second
  float turn = 180;    // degrees a second
  float gravity = 0;   // downwards, in pixels a second, each second
  float bounce = 0;    // share of the speed with which it comes back from what holds it
  Steering steering = Steering::free;
  bool turns_sprite = false;  // its sprite shows where it is heading

  float heading = 0;  // degrees, clockwise from the right
};
template <class V>
void describe(V& v, FlyMover& mover) {
  v("thrust", mover.thrust, within(0, 1e6));
  v("drag", mover.drag, within(0, 1000));
  v("speed", mover.speed, within(0, 100000));
  v("turn", mover.turn, within(0, 36000));
  v("gravity", mover.gravity, within(-1e6, 1e6));
  v("bounce", mover.bounce, within(0, 1));
  v("steering", mover.steering);
  v("turns_sprite", mover.turns_sprite);
  v("heading", mover.heading, within(-360, 360));
}

}  // namespace vole
