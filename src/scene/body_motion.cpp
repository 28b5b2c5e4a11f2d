#include "vole/scene/body_motion.hpp"

#include "vole/physics/subpixel.hpp"

namespace vole {

void move_body(const SolidGrid& grid, Vec2 by, const Body& body, Motion& motion, Touching& touching,
               Pose& pose) {
  const Vec2 wanted = by + motion.remainder;
  const Vec2 step = on_lattice(wanted);
  motion.remainder = wanted - step;
  const Rect box = body.box(pose.at);
  const Moved moved = move_box(grid, box, step);
  pose.at += moved.at - on_lattice(box.at);
  touching = {moved.below, moved.above, moved.left, moved.right};
  if (touching.wall()) motion.remainder.x = 0;
  if (moved.above || moved.below) motion.remainder.y = 0;
}

}  // namespace vole
