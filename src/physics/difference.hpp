// Where a shape can be so that it reaches into another: a convex polygon and everything within a radius of it, seen from
// where the shape is now.
#pragma once

#include <array>
#include <cstddef>

#include "point.hpp"
#include "vole/physics/shape.hpp"

namespace vole {

class Difference {
 public:
  // `apart`: from the shape's position to the other's. A shape without corners counts as a point.
  Difference(const Shape& other, const Shape* shape, Point apart);

  std::size_t count() const { return count_; }
  double radius() const { return radius_; }
  // In the order of Shape::corners(). Two corners have an edge there and an edge back.
  Point corner(std::size_t i) const { return corners_[i].at; }
  Point edge(std::size_t i) const { return corner(next(i)) - corner(i); }
  std::size_t edges() const { return count_ < 2 ? 0 : count_; }

  // Where on the other's own polygon the point lies that is `along` (0 to 1) the edge i.
  Point on_other(std::size_t i, double along) const {
    return corners_[i].other + (corners_[next(i)].other - corners_[i].other) * along;
  }

 private:
  struct Corner {
    Point at;
    Point other;  // the corner of the other that it comes from, from its position
  };

  std::size_t next(std::size_t i) const { return i + 1 == count_ ? 0 : i + 1; }
  void add(Point other, Point shape, Point apart);

  std::array<Corner, 2 * Shape::most_corners> corners_{};
  std::size_t count_ = 0;
  double radius_ = 0;
};

}  // namespace vole
