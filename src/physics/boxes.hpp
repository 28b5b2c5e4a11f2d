// What the coarse looks ask of boxes.
#pragma once

#include <algorithm>
#include <cmath>
#include <span>

#include "vole/base/rect.hpp"
#include "vole/physics/shape.hpp"

namespace vole {

inline bool is_finite(const Rect& box) {
  return std::isfinite(box.at.x) && std::isfinite(box.at.y) && std::isfinite(box.right()) &&
         std::isfinite(box.bottom());
}

// Edges included.
inline bool share_a_point(const Rect& a, const Rect& b) {
  return a.left() <= b.right() && b.left() <= a.right() && a.top() <= b.bottom() && b.top() <= a.bottom();
}

// Around all shapes; of none, an empty box.
inline Rect bounds_of(std::span<const Shape> shapes) {
  if (shapes.empty()) return {};
  Rect all = shapes[0].bounds();
  for (const Shape& shape : shapes.subspan(1)) all = all.joined_with(shape.bounds());
  return all;
}

}  // namespace vole
