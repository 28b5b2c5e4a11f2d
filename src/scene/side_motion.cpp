#include "vole/scene/side_motion.hpp"

#include <algorithm>
#include <cmath>

#include "vole/physics/subpixel.hpp"

namespace vole {
namespace {

float towards(float value, float target, float step) {
  return value < target ? std::min(value + step, target) : std::max(value - step, target);
}

void walk(const Intent& intent, float seconds, const SideMover& mover, const Touching& touching,
          float friction, Motion& motion) {
  const float target = std::clamp(intent.direction.x, -1.0f, 1.0f) * mover.speed;
  const bool speeding_up =
      target != 0 && target * motion.velocity.x >= 0 && std::abs(target) > std::abs(motion.velocity.x);
  const float rate = (speeding_up ? mover.acceleration : mover.deceleration) *
                     (touching.ground ? friction : mover.air_control);
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

// Along the ground, from where it stands.
void walk_on(Moving& moving, float seconds, Motion& motion, Touching& touching, Pose& pose) {
  const BodyMoved moved =
      moving.world.walk(moving.body, motion.velocity.x * seconds + motion.remainder.x, moving.rules);
  pose.at = moved.at;
  touching = moving.touching(moved);
  motion.remainder = {moved.rest, 0};
  motion.velocity.y = 0;
  if (touching.wall()) motion.velocity.x = motion.remainder.x = 0;
}

void fall(Moving& moving, float seconds, const SideMover& mover, Motion& motion, Touching& touching,
          Pose& pose) {
  motion.velocity.y = std::min(motion.velocity.y + mover.gravity * seconds, mover.fall_cap);
  Vec2 step = step_of(moving, motion.velocity * seconds, motion);
  // Into what it drops through, so that this does not hold it in the next tick.
  if (moving.rules.through_one_way) step.y = std::max(step.y, 1.0f / subpixels);
  const BodyMoved moved = moving.world.fly(moving.body, step, moving.rules);
  pose.at = moved.at;
  touching = moving.touching(moved);
  if (touching.ground)
    motion.velocity = {touching.wall() ? 0 : motion.velocity.x, 0};
  else
    motion.velocity = moved.kept(motion.velocity);
  if (touching.wall()) motion.remainder.x = 0;
  if (touching.ground || touching.ceiling) motion.remainder.y = 0;
}

}  // namespace

void move_sideways(Moving& moving, const Intent& intent, float seconds, SideMover& mover, Motion& motion,
                   Touching& touching, Pose& pose) {
  walk(intent, seconds, mover, touching, moving.friction, motion);
  jump(intent, seconds, mover, touching, motion);
  moving.body.at = pose.at;
  moving.rules.steepest = mover.steepest;
  moving.rules.slip = mover.slip;
  moving.rules.through_one_way = intent.drop_pressed && touching.ground;
  if (touching.ground && motion.velocity.y >= 0 && !moving.rules.through_one_way)
    walk_on(moving, seconds, motion, touching, pose);
  else
    fall(moving, seconds, mover, motion, touching, pose);
  if (intent.direction.x != 0) pose.faces_left = intent.direction.x < 0;
}

}  // namespace vole
