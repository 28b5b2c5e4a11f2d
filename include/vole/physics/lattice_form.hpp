// A convex polygon in whole numbers of 1/256 pixel (subpixel.hpp): what a box is swept against without any rounding.
//
// It is kept as the box around it and its slanted edges, each a line with the outside on one side.
#pragma once

#include <array>
#include <cstdint>
#include <span>

#include "vole/base/rect.hpp"
#include "vole/physics/shape.hpp"

namespace vole {

struct LatticePoint {
  std::int64_t x = 0;
  std::int64_t y = 0;

  friend LatticePoint operator+(LatticePoint a, LatticePoint b) { return {a.x + b.x, a.y + b.y}; }
  friend LatticePoint operator-(LatticePoint a, LatticePoint b) { return {a.x - b.x, a.y - b.y}; }
  friend bool operator==(LatticePoint a, LatticePoint b) { return a.x == b.x && a.y == b.y; }
};

// Edges as in Rect.
struct LatticeBox {
  std::int64_t left = 0;
  std::int64_t top = 0;
  std::int64_t right = 0;
  std::int64_t bottom = 0;

  LatticePoint at() const { return {left, top}; }
  LatticeBox moved_by(LatticePoint by) const {
    return {left + by.x, top + by.y, right + by.x, bottom + by.y};
  }
  friend bool operator==(const LatticeBox& a, const LatticeBox& b) {
    return a.left == b.left && a.top == b.top && a.right == b.right && a.bottom == b.bottom;
  }
};

// The points outside are those with x * their x + y * their y > at. (x, y) points outwards.
struct LatticeLine {
  std::int64_t x = 0;
  std::int64_t y = 0;
  std::int64_t at = 0;

  // How far a box is outside, times the length of (x, y); below 0 where some of it is inside.
  std::int64_t gap(const LatticeBox& box) const {
    return x * (x > 0 ? box.left : box.right) + y * (y > 0 ? box.top : box.bottom) - at;
  }
  std::int64_t along(LatticePoint motion) const { return x * motion.x + y * motion.y; }
  LatticeLine moved_by(LatticePoint by) const { return {x, y, at + x * by.x + y * by.y}; }
  friend bool operator==(const LatticeLine& a, const LatticeLine& b) {
    return a.x == b.x && a.y == b.y && a.at == b.at;
  }
};

// The same outward direction, of length 1.
Vec2 unit_normal(const LatticeLine& line);

class LatticeForm {
 public:
  LatticeForm() = default;
  explicit LatticeForm(const LatticeBox& box) : bounds_(box) {}
  // Its corners are taken to the nearest lattice points. A round shape counts as the polygon of 16 sides around it, which
  // reaches out of it by 2 % of its radius at most.
  explicit LatticeForm(const Shape& shape);

  const LatticeBox& bounds() const { return bounds_; }
  std::span<const LatticeLine> slants() const;

  // Calls visit(line) for each edge, and for those sides of the box around it that are none: up and down go after left
  // and right, slants after both.
  template <class Visit>
  void visit_lines(LatticePoint origin, const Visit& visit) const {
    visit(LatticeLine{-1, 0, -(bounds_.left + origin.x)});
    visit(LatticeLine{1, 0, bounds_.right + origin.x});
    visit(LatticeLine{0, -1, -(bounds_.top + origin.y)});
    visit(LatticeLine{0, 1, bounds_.bottom + origin.y});
    for (std::size_t i = 0; i < count_; ++i) visit(slants_[i].moved_by(origin));
  }

  // Whether a box reaches inside.
  bool overlaps(const LatticeBox& box, LatticePoint origin) const;

  friend bool operator==(const LatticeForm& a, const LatticeForm& b);

 private:
  void widen(const Shape& shape);

  LatticeBox bounds_;
  std::array<LatticeLine, Shape::most_corners> slants_{};
  std::uint8_t count_ = 0;
};

}  // namespace vole
