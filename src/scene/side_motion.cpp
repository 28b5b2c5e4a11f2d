#include "vole/scene/side_motion.hpp"

#include <algorithm>
#include <cmath>

#include "vole/physics/subpixel.hpp"
#include "vole/physics/sweep.hpp"

namespace vole {
namespace {

float towards(float value, float target, float step) {
  return value < target ? std::min(value + step, target) : std::max(value - step, target);
}

void walk(const Intent& intent, float seconds, const SideMover& mover, const Touching& touching,
          Motion& motion) {
  const float target = std::clamp(intent.direction.x, -1.0f, 1.0f) * mover.speed;
  const bool speeding_up =
      target != 0 && target * motion.velocity.x >= 0 && std::abs(target) > std::abs(motion.velocity.x);
  const float rate =
      (speeding_up ? mover.acceleration : mover.deceleration) * (touching.ground ? 1.0f : mover.air_control);
  motion.velocity.x = towards(motion.velocity.x, target, rate * seconds);
}

void jump(const Intent& intent, float seconds, SideMover& mover, const Touching& touching, Motion& motion) {
  mover.since_ground = touching.ground ? 0.0f : std::min(mover.since_ground + seconds, 1000.0f);
  mover.since_press = intent.jump_pressed ? 0.0f : std::min(mover.since_press + seconds, 1000.0f);
  if (mover.since_press <= mover.early_jump && mover.since_ground <= mover.late_jump) {
    motion.velocity.y = -mover.jump;
    mover.rising = true;
    mover.since_ground = mover.since_press = 1000.0f;
  }
  if (mover.rising && !intent.jump_held) {
    motion.velocity.y *= mover.short_hop;
    mover.rising = false;
  }
  if (motion.velocity.y >= 0) mover.rising = false;
}

}  // namespace

void move_sideways(const SolidGrid& grid, const Intent& intent, float seconds, SideMover& mover,
                   const Body& body, Motion& motion, Touching& touching, Pose& pose) {
  walk(intent, seconds, mover, touching, motion);
  jump(intent, seconds, mover, touching, motion);
  motion.velocity.y = std::min(motion.velocity.y + mover.gravity * seconds, mover.fall_cap);

  const Vec2 wanted = motion.velocity * seconds + motion.remainder;
  const Vec2 step = on_lattice(wanted);
  motion.remainder = wanted - step;
  const Rect box = body.box(pose.at);
  const Moved moved = move_box(grid, box, step);
  pose.at += moved.at - on_lattice(box.at);

  touching.ground = moved.below;
  touching.wall = moved.left || moved.right;
  if (touching.wall) motion.velocity.x = motion.remainder.x = 0;
  if (moved.above || moved.below) motion.velocity.y = motion.remainder.y = 0;
  if (intent.direction.x != 0) pose.faces_left = intent.direction.x < 0;
}

}  // namespace vole
