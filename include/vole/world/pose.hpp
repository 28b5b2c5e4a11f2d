// Where a thing is.
#pragma once

#include "vole/base/describe.hpp"
#include "vole/base/direction.hpp"
#include "vole/base/vec.hpp"

namespace vole {

// Every thing of a kind has one. Its position is where its feet stand, or its sprite's pivot.
struct Pose {
  Vec2 at{0, 0};
  Vec2 before{0, 0};  // at the end of the tick before, for drawing in between
  bool mirrored = false;
  // Of what goes from above: right, down, left or up, the last way that it was steered.
  Direction facing = Direction::right;

  Vec2 shown_at(float share) const { return before + (at - before) * share; }
};
template <class V>
void describe(V& v, Pose& pose) {
  v.state("at", pose.at, position());
  v.state("before", pose.before, position());
  v.state("mirrored", pose.mirrored);
  v.state("facing", pose.facing);
}

}  // namespace vole
