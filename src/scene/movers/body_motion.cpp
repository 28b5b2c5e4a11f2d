#include "vole/scene/movers/body_motion.hpp"

#include "vole/physics/subpixel.hpp"
#include "vole/scene/bodies/solid_things.hpp"

namespace vole {

Touching Moving::touching(const BodyMoved& moved) const {
  Touching touching;
  touching.ground = moved.below.any;
  touching.ceiling = moved.above.any;
  touching.wall_left = moved.left.any;
  touching.wall_right = moved.right.any;
  if (moved.below.any) touching.ground_normal = moved.below.normal;
  const Touch& wall = moved.left.any ? moved.left : moved.right;
  if (things && moved.below.any) touching.ground_thing = things->thing(moved.below.body);
  if (things && wall.any) touching.wall_thing = things->thing(wall.body);
  return touching;
}

Vec2 step_of(const Moving& moving, Vec2 by, Motion& motion) {
  if (!moving.body.solid_box()) return by;
  const Vec2 wanted = by + motion.remainder;
  const Vec2 step = on_lattice(wanted);
  motion.remainder = wanted - step;
  return step;
}

BodyMoved move_body(Moving& moving, Vec2 by, Motion& motion, Touching& touching, Pose& pose) {
  moving.body.at = pose.at;
  const BodyMoved moved = moving.world.slide(moving.body, step_of(moving, by, motion), moving.rules);
  moving.body.at = pose.at = moved.at;
  touching = moving.touching(moved);
  if (touching.wall()) motion.remainder.x = 0;
  if (touching.ground || touching.ceiling) motion.remainder.y = 0;
  return moved;
}

}  // namespace vole
