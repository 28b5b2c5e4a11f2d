#include "vole/scene/movers/fly_motion.hpp"

#include <algorithm>
#include <cmath>

#include "vole/base/trig.hpp"
#include "vole/world/sprite.hpp"

namespace vole {
namespace {

Vec2 ahead(float heading) {
  return {cos_degrees(heading), sin_degrees(heading)};
}

// Which of two turns is the shorter, and whether there is one: -1, 0 or 1.
float side_of(Vec2 heading, Vec2 pushed) {
  const float cross = heading.x * pushed.y - heading.y * pushed.x;
  if (cross != 0) return cross > 0 ? 1.0f : -1.0f;
  return heading.x * pushed.x + heading.y * pushed.y < 0 ? 1.0f : 0.0f;
}

// At most so many degrees; it stops where it points to the same direction.
void turn_towards(float& heading, Vec2 pushed, float most) {
  const float side = side_of(ahead(heading), pushed);
  if (side == 0) return;
  // Further than half of the way round it would pass what it looks for.
  constexpr float half = 179;
  most = std::min(most, half);
  const float turned = heading + side * most;
  if (side_of(ahead(turned), pushed) == side) {
    heading = turned;
    return;
  }
  // The way is between: by halves, to within a thousandth of the turn.
  float from = heading, to = turned;
  for (int i = 0; i < 10; ++i) {
    const float middle = (from + to) / 2;
    (side_of(ahead(middle), pushed) == side ? from : to) = middle;
  }
  heading = to;
}

Vec2 thrust_of(const Intent& intent, float seconds, FlyMover& mover) {
  const Vec2 pushed = at_most_one_long(intent.direction);
  switch (mover.steering) {
    case Steering::free:
      return pushed;
    case Steering::turns:
      mover.heading += pushed.x * mover.turn * seconds;
      return ahead(mover.heading) * -pushed.y;
    case Steering::seeks:
      if (pushed != Vec2{0, 0}) turn_towards(mover.heading, pushed, mover.turn * seconds);
      return ahead(mover.heading);
  }
  return {0, 0};
}

}  // namespace

void move_flying(MoverTurn& turn, FlyMover& mover) {
  Vec2& velocity = turn.motion.velocity;
  const float seconds = turn.seconds;
  velocity += thrust_of(turn.intent, seconds, mover) * mover.thrust * seconds;
  velocity.y += mover.gravity * seconds;
  if (mover.heading > 360) mover.heading -= 360;
  if (mover.heading < -360) mover.heading += 360;
  // Implicit, so that it never pushes back, however strong it is.
  velocity /= 1 + mover.drag * seconds;
  if (const float length = length_of(velocity); length > mover.speed) velocity *= mover.speed / length;
  const Vec2 came_with = velocity;
  turn.go();
  velocity += (velocity - came_with) * mover.bounce;
  if (mover.turns_sprite && turn.sprite) turn.sprite->rotation = mover.heading;
  if (turn.intent.direction.x != 0 && mover.steering == Steering::free)
    turn.pose.mirrored = turn.intent.direction.x < 0;
}

}  // namespace vole
