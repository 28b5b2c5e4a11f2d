#include "vole/scene/side_motion.hpp"

#include <algorithm>
#include <cmath>

#include "vole/scene/body_motion.hpp"

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

  move_body(grid, motion.velocity * seconds, body, motion, touching, pose);
  if (touching.wall()) motion.velocity.x = 0;
  if (touching.ground || touching.ceiling) motion.velocity.y = 0;
  if (intent.direction.x != 0) pose.faces_left = intent.direction.x < 0;
}

}  // namespace vole
