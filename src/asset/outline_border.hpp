// The first half of an outline: the border of what is opaque, followed and simplified.
#pragma once

#include <cstdint>
#include <vector>

#include "vole/asset/picture.hpp"

namespace vole {

// Corners in quarters of a pixel. What is opaque is on the right of the way around: a border from outside goes around as a
// clock's hand does, one of a hole the other way.
using Loop = std::vector<IVec2>;
inline constexpr int outline_steps = 4;  // in a pixel

// Twice the area of the triangle; above 0 when c is to the right of the way from a to b, on the screen.
inline std::int64_t turn(IVec2 a, IVec2 b, IVec2 c) {
  const std::int64_t abx = std::int64_t{b.x} - a.x, aby = std::int64_t{b.y} - a.y;
  return abx * (std::int64_t{c.y} - a.y) - aby * (std::int64_t{c.x} - a.x);
}
// Twice the area that a loop goes around; below 0 for a hole.
std::int64_t area_of(const Loop& loop);
// Whether two pieces of line share a point.
bool lines_meet(IVec2 a, IVec2 b, IVec2 c, IVec2 d);
// Whether the way from a to b goes back on itself to c.
bool folds(IVec2 a, IVec2 b, IVec2 c);

// Loops that neither touch each other nor themselves. Throws Error as cut_outline does.
std::vector<Loop> simplified_borders(const Frame& frame, float error);

}  // namespace vole
