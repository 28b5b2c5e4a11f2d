#include "vole/scene/movers/side_motion.hpp"

#include <algorithm>
#include <cmath>

#include "side_ways.hpp"
#include "vole/physics/subpixel.hpp"

namespace vole {
namespace {

void count_time(const MoverTurn& turn, SideMover& mover) {
  constexpr float long_ago = 1000;
  const auto count = [&](float& since, bool now) {
    since = now ? 0 : std::min(since + turn.seconds, long_ago);
  };
  const bool in_air_at_wall = turn.touching.wall() && !turn.touching.ground;
  count(mover.now.since_ground, turn.touching.ground);
  count(mover.now.since_press, turn.intent.jump_pressed);
  count(mover.now.since_wall, in_air_at_wall);
  count(mover.now.since_wall_jump, false);
  count(mover.now.since_dash, false);
  if (in_air_at_wall) mover.now.wall_is_left = turn.touching.wall_left;
  if (turn.touching.ground) {
    mover.now.jumped_in_air = 0;
    mover.now.dashed_in_air = false;
  }
}

// Where its pilot pushes, but not back to a wall that it has just jumped off.
float pushed_across(const MoverTurn& turn, const SideMover& mover) {
  const float x = std::clamp(turn.intent.direction.x, -1.0f, 1.0f);
  const bool back_to_wall = mover.now.wall_is_left ? x < 0 : x > 0;
  return mover.now.since_wall_jump < mover.wall_pause && back_to_wall ? 0 : x;
}

void walk(MoverTurn& turn, const SideMover& mover, const Surroundings& around) {
  float& speed = turn.motion.velocity.x;
  // The jump off a wall is not slowed down by letting go.
  if (mover.now.since_wall_jump < mover.wall_pause && pushed_across(turn, mover) == 0) return;
  const float share = mover.now.state == SideState::crouching ? mover.crouch_speed : 1;
  const float target = pushed_across(turn, mover) * mover.speed * share;
  const bool speeding_up = target != 0 && target * speed >= 0 && std::abs(target) > std::abs(speed);
  const float rate = (speeding_up ? mover.acceleration : mover.deceleration) *
                     (turn.touching.ground ? around.friction : mover.air_control);
  speed = towards(speed, target, rate * turn.seconds);
}

bool pushes_to_wall(const MoverTurn& turn) {
  return (turn.touching.wall_left && turn.intent.direction.x < 0) ||
         (turn.touching.wall_right && turn.intent.direction.x > 0);
}

void jump_off_wall(MoverTurn& turn, SideMover& mover) {
  turn.motion.velocity.x = mover.now.wall_is_left ? mover.wall_jump.x : -mover.wall_jump.x;
  turn.pose.mirrored = !mover.now.wall_is_left;
  begin_jump(turn, mover, mover.wall_jump.y);
  mover.now.since_wall_jump = 0;
}

void jump(MoverTurn& turn, SideMover& mover, const Surroundings& around) {
  Motion& motion = turn.motion;
  if (mover.now.since_press <= mover.early_jump) {
    if (mover.now.since_ground <= mover.late_jump) {
      motion.velocity.x += around.carried.x;
      begin_jump(turn, mover, mover.jump);
    } else if (mover.wall_jump != Vec2{0, 0} && mover.now.since_wall <= mover.late_jump) {
      jump_off_wall(turn, mover);
    } else if (turn.intent.jump_pressed && mover.now.jumped_in_air < mover.air_jumps) {
      ++mover.now.jumped_in_air;
      begin_jump(turn, mover, mover.jump);
    }
  }
  if (mover.now.rising && !turn.intent.jump_held) {
    motion.velocity.y *= mover.short_hop;
    mover.now.rising = false;
  }
  if (motion.velocity.y >= 0) mover.now.rising = false;
}

// Onto an edge that its feet have run into from beside, by `step_up` pixels at most.
void step_onto_edge(MoverTurn& turn, const SideMover& mover) {
  if (mover.step_up <= 0 || !turn.touching.wall() || turn.motion.velocity.y < 0) return;
  const float ahead = turn.touching.wall_left ? -1.0f : 1.0f;
  CollisionBody body = turn.moving.body;
  body.at = turn.pose.at;
  const CollisionWorld& world = turn.moving.world;
  if (world.would_hit(body, {0, -mover.step_up}, turn.moving.rules)) return;
  body.at.y -= mover.step_up;
  if (world.would_hit(body, {ahead, 0}, turn.moving.rules)) return;
  body.at.x += ahead;
  const BodyMoved down = world.slide(body, {0, mover.step_up}, turn.moving.rules);
  if (!down.below.any) return;
  turn.pose.at = down.at;
  turn.touching = turn.moving.touching(down);
}

// Along the ground, from where it stands.
void walk_on(MoverTurn& turn, SideMover& mover, const Surroundings& around) {
  Motion& motion = turn.motion;
  const float speed = motion.velocity.x;
  const float length = (speed + around.carried.x) * turn.seconds + motion.remainder.x;
  const BodyMoved moved = turn.moving.world.walk(turn.moving.body, length, turn.moving.rules);
  turn.pose.at = moved.at;
  turn.touching = turn.moving.touching(moved);
  motion.remainder = {moved.rest, 0};
  motion.velocity.y = 0;
  step_onto_edge(turn, mover);
  if (turn.touching.wall()) motion.velocity.x = motion.remainder.x = 0;
}

float fastest_fall(const MoverTurn& turn, SideMover& mover) {
  if (mover.wall_slide > 0 && pushes_to_wall(turn) && turn.motion.velocity.y >= 0) {
    mover.now.state = SideState::sliding;
    return std::min(mover.wall_slide, mover.fall_cap);
  }
  if (mover.glide > 0 && turn.intent.jump_held && !mover.now.rising && turn.motion.velocity.y >= 0) {
    mover.now.state = SideState::gliding;
    return std::min(mover.glide, mover.fall_cap);
  }
  return mover.fall_cap;
}

void fall(MoverTurn& turn, SideMover& mover) {
  Motion& motion = turn.motion;
  const float cap = fastest_fall(turn, mover);
  motion.velocity.y = std::min(motion.velocity.y + mover.gravity * turn.seconds, cap);
  // Into what it drops through, so that this does not hold it in the next tick.
  if (turn.moving.rules.through_one_way)
    motion.velocity.y = std::max(motion.velocity.y, 1.0f / subpixels / turn.seconds);
  fly_on(turn);
  const bool held = turn.touching.wall();
  const float came_with = turn.touching.came_with.x;
  step_onto_edge(turn, mover);
  if (held && !turn.touching.wall()) motion.velocity = {came_with, 0};
}

}  // namespace

float towards(float value, float target, float step) {
  return value < target ? std::min(value + step, target) : std::max(value - step, target);
}

void begin_jump(MoverTurn& turn, SideMover& mover, float speed) {
  turn.motion.velocity.y = -speed;
  mover.now.rising = true;
  mover.now.since_ground = mover.now.since_press = mover.now.since_wall = 1000.0f;
}

void fly_on(MoverTurn& turn) {
  Motion& motion = turn.motion;
  const Vec2 speed = motion.velocity;
  const Vec2 step = step_of(turn.moving, speed * turn.seconds, motion);
  const BodyMoved moved = turn.moving.world.fly(turn.moving.body, step, turn.moving.rules);
  turn.pose.at = moved.at;
  turn.touching = turn.moving.touching(moved);
  turn.touching.came_with = speed;
  if (turn.touching.ground)
    motion.velocity = {turn.touching.wall() ? 0 : speed.x, 0};
  else
    motion.velocity = moved.kept(speed);
  if (turn.touching.wall()) motion.remainder.x = 0;
  if (turn.touching.ground || turn.touching.ceiling) motion.remainder.y = 0;
}

void move_sideways(MoverTurn& turn, SideMover& mover) {
  Moving& moving = turn.moving;
  count_time(turn, mover);
  moving.body.at = turn.pose.at;
  moving.rules.steepest = mover.steepest;
  moving.rules.slip = mover.slip;
  moving.rules.through_one_way = turn.intent.drop_pressed && turn.touching.ground;
  if (turn.intent.direction.x != 0) turn.pose.mirrored = turn.intent.direction.x < 0;
  if (dash(turn, mover)) return;
  const Surroundings around = seen_from_side(turn);
  if (climb(turn, mover, around) || swim(turn, mover, around)) return;
  crouch(turn, mover);
  walk(turn, mover, around);
  jump(turn, mover, around);
  if (turn.touching.ground && turn.motion.velocity.y >= 0 && !moving.rules.through_one_way)
    walk_on(turn, mover, around);
  else
    fall(turn, mover);
}

}  // namespace vole
