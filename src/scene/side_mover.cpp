#include "vole/scene/side_mover.hpp"

#include <algorithm>
#include <cmath>

#include "vole/physics/subpixel.hpp"
#include "vole/physics/sweep.hpp"

namespace vole {
namespace {

float towards(float value, float target, float step) {
  return value < target ? std::min(value + step, target) : std::max(value - step, target);
}

void walk(const Intent& intent, float seconds, const SideMover& mover, Body& body) {
  const float target = std::clamp(intent.direction.x, -1.0f, 1.0f) * mover.speed;
  const bool speeding_up =
      target != 0 && target * body.velocity.x >= 0 && std::abs(target) > std::abs(body.velocity.x);
  const float rate =
      (speeding_up ? mover.acceleration : mover.deceleration) * (body.on_ground ? 1.0f : mover.air_control);
  body.velocity.x = towards(body.velocity.x, target, rate * seconds);
}

void jump(const Intent& intent, float seconds, SideMover& mover, Body& body) {
  mover.since_ground = body.on_ground ? 0.0f : std::min(mover.since_ground + seconds, 1000.0f);
  mover.since_press = intent.jump_pressed ? 0.0f : std::min(mover.since_press + seconds, 1000.0f);
  if (mover.since_press <= mover.early_jump && mover.since_ground <= mover.late_jump) {
    body.velocity.y = -mover.jump;
    mover.rising = true;
    mover.since_ground = mover.since_press = 1000.0f;
  }
  if (mover.rising && !intent.jump_held) {
    body.velocity.y *= mover.short_hop;
    mover.rising = false;
  }
  if (body.velocity.y >= 0) mover.rising = false;
}

}  // namespace

void move_sideways(const SolidGrid& grid, const Intent& intent, float seconds, SideMover& mover, Body& body,
                   Pose& pose) {
  walk(intent, seconds, mover, body);
  jump(intent, seconds, mover, body);
  body.velocity.y = std::min(body.velocity.y + mover.gravity * seconds, mover.fall_cap);

  const Vec2 wanted = body.velocity * seconds + body.remainder;
  const Vec2 motion = on_lattice(wanted);
  body.remainder = wanted - motion;
  const Rect box = body.box(pose.at);
  const Moved moved = move_box(grid, box, motion);
  pose.at += moved.at - on_lattice(box.at);

  body.on_ground = moved.below;
  body.at_wall = moved.left || moved.right;
  if (body.at_wall) body.velocity.x = body.remainder.x = 0;
  if (moved.above || moved.below) body.velocity.y = body.remainder.y = 0;
  if (intent.direction.x != 0) pose.faces_left = intent.direction.x < 0;
}

}  // namespace vole
