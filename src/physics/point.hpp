// Points in the numbers that shapes are worked out in: differences of floats, and their products, are exact in them, save
// where numbers of very different size come together.
#pragma once

#include "vole/base/vec.hpp"

namespace vole {

struct Point {
  double x = 0;
  double y = 0;

  friend Point operator+(Point a, Point b) { return {a.x + b.x, a.y + b.y}; }
  friend Point operator-(Point a, Point b) { return {a.x - b.x, a.y - b.y}; }
  friend Point operator*(Point a, double by) { return {a.x * by, a.y * by}; }
};

inline double dot(Point a, Point b) {
  return a.x * b.x + a.y * b.y;
}
inline double cross(Point a, Point b) {
  return a.x * b.y - a.y * b.x;
}
inline Point exact(Vec2 point) {
  return {static_cast<double>(point.x), static_cast<double>(point.y)};
}
inline Vec2 rounded(Point point) {
  return {static_cast<float>(point.x), static_cast<float>(point.y)};
}

// The order in which a shape's first corner is found.
inline bool comes_before(Vec2 a, Vec2 b) {
  return a.y < b.y || (a.y == b.y && a.x < b.x);
}

}  // namespace vole
