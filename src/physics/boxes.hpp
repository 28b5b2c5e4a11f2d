// What the coarse looks ask of boxes.
#pragma once

#include <cmath>

#include "vole/base/rect.hpp"

namespace vole {

inline bool is_finite(const Rect& box) {
  return std::isfinite(box.at.x) && std::isfinite(box.at.y) && std::isfinite(box.right()) &&
         std::isfinite(box.bottom());
}

// Edges included.
inline bool share_a_point(const Rect& a, const Rect& b) {
  return a.left() <= b.right() && b.left() <= a.right() && a.top() <= b.bottom() && b.top() <= a.bottom();
}

}  // namespace vole
