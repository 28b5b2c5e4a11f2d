// Moving a body among what is solid: what every mover ends with, also one of a game's own (see Stage::move).
#pragma once

#include "vole/physics/collision_world.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/pose.hpp"

namespace vole {

class SolidThings;

// A body that is about to be moved, and what may hold it.
struct Moving {
  const CollisionWorld& world;
  CollisionBody body;
  MoveRules rules = {};
  const SolidThings* things = nullptr;  // whose bodies these are

  // What was met on a move, by side.
  Touching touching(const BodyMoved& moved) const;
};

// Moves the body by so many pixels; along a wall it slides. A box is on the lattice of 1/256 pixel: what is left of `by` is
// kept in the motion's remainder for the next time, and dropped where the body is held. Says in `touching` what was met.
BodyMoved move_body(Moving& moving, Vec2 by, Motion& motion, Touching& touching, Pose& pose);

// The part of a motion that the lattice can take; the rest is kept in the remainder.
Vec2 step_of(const Moving& moving, Vec2 by, Motion& motion);

}  // namespace vole
