// What of a body collides: a box, a circle, a capsule or a convex polygon, in pixels from the body's position.
//
//   const Shape feet = Shape::box({{-5, -12}, {10, 12}});
//   const Shape bulb = Shape::circle({0, -6}, 6);
//   const Shape wedge = Shape::polygon({{{0, 0}, {16, 0}, {16, -16}}});
//
// All are one thing: a convex polygon of 1 to 16 corners, and everything within a radius of it. A circle is one corner
// with a radius, a capsule two.
#pragma once

#include <array>
#include <cstdint>
#include <span>
#include <string>

#include "vole/base/rect.hpp"

namespace vole {

class Shape {
 public:
  static constexpr std::size_t most_corners = 16;
  // How far a corner may be from the position, along each axis; the largest radius too.
  static constexpr float furthest = 8192;

  // Each throws Error when a number is not finite or further than that, or a size or radius is not above 0.
  static Shape box(const Rect& box);
  static Shape circle(Vec2 middle, float radius);
  static Shape capsule(Vec2 from, Vec2 to, float radius);
  // 3 to 16 corners, in either direction around. Throws Error as wrong_with_corners() says.
  static Shape polygon(std::span<const Vec2> corners);

  // In the direction in which a clock's hand turns on the screen, from the topmost on; of several, from the leftmost.
  std::span<const Vec2> corners() const { return {corners_.data(), count_}; }
  float radius() const { return radius_; }
  // The smallest box that holds it.
  Rect bounds() const;

  Shape moved_by(Vec2 by) const;
  // Left and right of the position change places.
  Shape mirrored() const;
  // Turned around the position, as a clock's hand is on the screen; exact at every multiple of 90 degrees.
  Shape turned(float degrees) const;

  friend bool operator==(const Shape& a, const Shape& b);

 private:
  Shape(std::span<const Vec2> corners, float radius);

  std::array<Vec2, most_corners> corners_{};
  std::uint8_t count_ = 0;
  float radius_ = 0;
};

// What keeps corners from being a convex polygon; empty where nothing does.
std::string wrong_with_corners(std::span<const Vec2> corners);

}  // namespace vole
