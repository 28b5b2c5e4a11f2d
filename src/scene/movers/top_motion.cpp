#include "vole/scene/movers/top_motion.hpp"

#include <algorithm>
#include <cmath>

#include "vole/scene/movers/surroundings.hpp"

namespace vole {
namespace {

// The way that is pushed, of those that the thing can walk: at most 1 long.
Vec2 way_of(Vec2 pushed, TopMover& mover) {
  if (mover.directions == WalkDirections::four) {
    const float x = std::abs(pushed.x), y = std::abs(pushed.y);
    if (x != y) mover.goes_across = x > y;
    if (mover.goes_across)
      pushed.y = 0;
    else
      pushed.x = 0;
  }
  if (mover.directions == WalkDirections::eight && pushed != Vec2{0, 0}) {
    // Within a slope of tan(22.5 degrees) of an axis it is that axis.
    constexpr float slope = 0.41421356f;
    const float x = std::abs(pushed.x), y = std::abs(pushed.y), far = std::max(x, y);
    const auto part = [far](float value, float other) {
      return std::abs(value) < slope * std::abs(other) ? 0.0f : std::copysign(far, value);
    };
    pushed = {part(pushed.x, pushed.y), part(pushed.y, pushed.x)};
  }
  return at_most_one_long(pushed);
}

// Of two ways that are pushed alike it keeps to the one that it faces.
void face(Pose& pose, Vec2 pushed) {
  const float x = std::abs(pushed.x), y = std::abs(pushed.y);
  const bool faces_across = pose.facing == Direction::right || pose.facing == Direction::left;
  if (x > y || (x == y && x > 0 && faces_across))
    pose.facing = pushed.x < 0 ? Direction::left : Direction::right;
  else if (y > 0)
    pose.facing = pushed.y < 0 ? Direction::up : Direction::down;
}

}  // namespace

void move_from_above(MoverTurn& turn, TopMover& mover) {
  Motion& motion = turn.motion;
  const Surroundings around = seen_from_above(turn);
  const Vec2 target = way_of(turn.intent.direction, mover) * mover.speed;
  const Vec2 change = target - motion.velocity;
  const bool speeding_up = target != Vec2{0, 0} && length_of(target) >= length_of(motion.velocity);
  const float most = (speeding_up ? mover.acceleration : mover.deceleration) * around.friction * turn.seconds;
  const float length = length_of(change);
  motion.velocity = length <= most ? target : motion.velocity + change * (most / length);
  turn.moving.rules.slip = mover.slip;
  const BodyMoved moved = turn.move((motion.velocity + around.carried) * turn.seconds);
  motion.velocity = moved.kept(motion.velocity);
  face(turn.pose, turn.intent.direction);
  if (turn.intent.direction.x != 0) turn.pose.mirrored = turn.intent.direction.x < 0;
}

}  // namespace vole
