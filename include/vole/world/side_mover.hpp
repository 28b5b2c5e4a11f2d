// Walks and jumps, seen from the side. In kinds.toml:
//
//   side_mover = { speed = 92, jump = 290 }
//   side_mover = { air_jumps = 1, wall_slide = 40, wall_jump = [120, 260], climb = 60 }
//
// What a thing can do besides walking, jumping and falling is off where its number is 0, as it is when left out. Ladders, liquids
// and moving ground: see tile_effects.hpp.
#pragma once

#include <array>
#include <cstdint>
#include <string_view>

#include "vole/base/describe.hpp"
#include "vole/base/vec.hpp"

namespace vole {

// What it does besides walking, jumping and falling; clip rules read it as facts of these names.
enum class SideState : std::uint8_t { free, climbing, swimming, crouching, dashing, sliding, gliding };
constexpr auto enum_names(SideState) {
  return std::array<std::string_view, 7>{"free",    "climbing", "swimming", "crouching",
                                         "dashing", "sliding",  "gliding"};
}

// What it is in the middle of, and remembers from one tick to the next.
struct SideMoverNow {
  SideState state = SideState::free;
  float since_ground = 1000;  // seconds
  float since_press = 1000;
  bool rising = false;  // in a jump that can still be cut short
  int jumped_in_air = 0;
  float since_wall = 1000;
  bool wall_is_left = false;  // the last one
  float since_wall_jump = 1000;
  float since_dash = 1000;  // from its begin
  bool dashed_in_air = false;
  float height = 0;  // that it gets up to again; 0 while it does not crouch
};
template <class V>
void describe(V& v, SideMoverNow& now) {
  v.state("state", now.state);
  v.state("since_ground", now.since_ground);
  v.state("since_press", now.since_press);
  v.state("rising", now.rising);
  v.state("jumped_in_air", now.jumped_in_air);
  v.state("since_wall", now.since_wall);
  v.state("wall_is_left", now.wall_is_left);
  v.state("since_wall_jump", now.since_wall_jump);
  v.state("since_dash", now.since_dash);
  v.state("dashed_in_air", now.dashed_in_air);
  v.state("height", now.height);
}

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
  float step_up = 0;  // pixels by which its feet may be below the edge that they run into, and get onto it

  int air_jumps = 0;          // jumps in the air before it has stood again
  float wall_slide = 0;       // the fastest fall along a wall that it pushes against
  Vec2 wall_jump{0, 0};       // speed away from the wall, and upward
  float wall_pause = 0.15f;   // seconds after that in which pushing back to the wall does nothing
  float climb = 0;            // speed on ladders
  float swim = 0;             // speed in liquids
  float crouch = 0;           // height in pixels while it crouches; for a body that is a box
  float crouch_speed = 0.5f;  // share of the speed
  float dash = 0;             // speed of a dash
  float dash_seconds = 0.15f;
  float dash_pause = 0.3f;  // seconds after one; in the air there is one before it has stood again
  float glide = 0;          // the fastest fall while jump is held

  SideMoverNow now;
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
  v("step_up", mover.step_up, within(0, 64));
  v("air_jumps", mover.air_jumps, within(0, 1000));
  v("wall_slide", mover.wall_slide, within(0, 100000));
  v("wall_jump", mover.wall_jump, within(0, 100000));
  v("wall_pause", mover.wall_pause, within(0, 10));
  v("climb", mover.climb, within(0, 100000));
  v("swim", mover.swim, within(0, 100000));
  v("crouch", mover.crouch, within(0, 4096));
  v("crouch_speed", mover.crouch_speed, within(0, 1));
  v("dash", mover.dash, within(0, 100000));
  v("dash_seconds", mover.dash_seconds, within(0, 10));
  v("dash_pause", mover.dash_pause, within(0, 10));
  v("glide", mover.glide, within(0, 100000));
  v.state("now", mover.now);
}

}  // namespace vole
