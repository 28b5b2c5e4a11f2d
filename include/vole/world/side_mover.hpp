// Walks and jumps, seen from the side. In kinds.toml:
//
//   side_mover = { speed = 92, jump = 290 }
#pragma once

#include "vole/base/describe.hpp"

namespace vole {

struct SideMover {
  float speed = 90;          // pixels a second
  float acceleration = 600;  // pixels a second, each second
  float deceleration = 800;  // when letting go or turning, on the ground
  float air_control = 0.7f;  // share of both while in the air
  float gravity = 900;
  float jump = 280;         // upward speed at the start of a jump
  float fall_cap = 320;     // the fastest fall
  float late_jump = 0.1f;   // seconds after leaving the ground in which a jump still counts
  float early_jump = 0.1f;  // seconds before landing in which a press is kept
  float short_hop = 0.45f;  // share of the upward speed kept when jump is let go
  float steepest = 50;      // degrees: slopes that are steeper are walls
  float slip = 0;           // pixels by which it gets around the edge of a ceiling over it

  float since_ground = 1000;  // seconds
  float since_press = 1000;
  bool rising = false;  // in a jump that can still be cut short
};
template <class V>
void describe(V& v, SideMover& mover) {
  v("speed", mover.speed, within(0, 100000));
  v("acceleration", mover.acceleration, within(0, 1e6));
  v("deceleration", mover.deceleration, within(0, 1e6));
  v("air_control", mover.air_control, within(0, 1));
  v("gravity", mover.gravity, within(0, 1e6));
  v("jump", mover.jump, within(0, 100000));
  v("fall_cap", mover.fall_cap, within(0, 100000));
  v("late_jump", mover.late_jump, within(0, 10));
  v("early_jump", mover.early_jump, within(0, 10));
  v("short_hop", mover.short_hop, within(0, 1));
  v("steepest", mover.steepest, within(0, 85));
  v("slip", mover.slip, within(0, 64));
  v.state("since_ground", mover.since_ground);
  v.state("since_press", mover.since_press);
  v.state("rising", mover.rising);
}

}  // namespace vole
