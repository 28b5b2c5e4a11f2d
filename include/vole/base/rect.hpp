// Rectangles with sides along the axes: a corner (`at`, top left) and a `size`.
//
//   IRect canvas{{0, 0}, {320, 180}};
//   if (canvas.overlaps(sprite)) ...
//
// A rectangle holds its left and top edge and not its right and bottom one, so rectangles laid side by side
// share no point.
#pragma once

#include "vole/base/vec.hpp"

namespace vole {

template <class V>
struct BasicRect {
  using Scalar = typename V::value_type;

  V at{0, 0};
  V size{0, 0};

  Scalar left() const { return at.x; }
  Scalar top() const { return at.y; }
  Scalar right() const { return at.x + size.x; }
  Scalar bottom() const { return at.y + size.y; }

  bool empty() const { return size.x <= 0 || size.y <= 0; }

  bool contains(V point) const {
    return point.x >= left() && point.x < right() && point.y >= top() && point.y < bottom();
  }

  bool overlaps(const BasicRect& other) const {
    return left() < other.right() && other.left() < right() && top() < other.bottom() &&
           other.top() < bottom();
  }

  // The part that both hold; empty when they do not overlap.
  BasicRect shared_with(const BasicRect& other) const {
    const V corner{larger_of(left(), other.left()), larger_of(top(), other.top())};
    const V end{smaller_of(right(), other.right()), smaller_of(bottom(), other.bottom())};
    return {corner, {larger_of(end.x - corner.x, Scalar{0}), larger_of(end.y - corner.y, Scalar{0})}};
  }

  // The smallest that holds both.
  BasicRect joined_with(const BasicRect& other) const {
    const V corner{smaller_of(left(), other.left()), smaller_of(top(), other.top())};
    const V end{larger_of(right(), other.right()), larger_of(bottom(), other.bottom())};
    return {corner, end - corner};
  }

  BasicRect moved_by(V by) const { return {{at.x + by.x, at.y + by.y}, size}; }
  // Larger by so much on each of its sides.
  BasicRect widened_by(Scalar by) const { return {at - V(by), size + V(2 * by)}; }

  friend bool operator==(const BasicRect& a, const BasicRect& b) { return a.at == b.at && a.size == b.size; }
};

using Rect = BasicRect<Vec2>;
using IRect = BasicRect<IVec2>;

}  // namespace vole
