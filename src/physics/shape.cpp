#include "vole/physics/shape.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "point.hpp"
#include "vole/base/error.hpp"
#include "vole/base/trig.hpp"

namespace vole {
namespace {

double turn(Vec2 from, Vec2 by, Vec2 to) {
  return cross(exact(by) - exact(from), exact(to) - exact(by));
}

bool near_enough(Vec2 point) {
  // Also false for what is no number.
  return std::abs(point.x) <= Shape::furthest && std::abs(point.y) <= Shape::furthest;
}

// `wrong` makes the message, which is needed seldom.
template <class Wrong>
void expect(bool holds, const Wrong& wrong) {
  if (!holds) throw Error(FilePosition{}, wrong());
}

void expect_near(std::span<const Vec2> points) {
  expect(std::all_of(points.begin(), points.end(), near_enough),
         [] { return fmt::format("a shape lies within {} pixels of its position", Shape::furthest); });
}

void expect_radius(float radius) {
  expect(radius > 0 && radius <= Shape::furthest,
         [] { return fmt::format("a radius is above 0 and at most {}", Shape::furthest); });
}

}  // namespace

std::string wrong_with_corners(std::span<const Vec2> corners) {
  const std::size_t count = corners.size();
  if (count < 3 || count > Shape::most_corners)
    return fmt::format("a polygon has 3 to {} corners, and this one {}", Shape::most_corners, count);
  for (std::size_t i = 0; i < count; ++i)
    if (!near_enough(corners[i]))
      return fmt::format("corner {} is not within {} pixels of the position", i + 1, Shape::furthest);
  for (std::size_t i = 0; i < count; ++i)
    if (corners[i] == corners[(i + 1) % count])
      return fmt::format("corners {} and {} are the same", i + 1, (i + 1) % count + 1);
  std::size_t lefts = 0, rights = 0;
  for (std::size_t i = 0; i < count; ++i) {
    const double turned = turn(corners[i], corners[(i + 1) % count], corners[(i + 2) % count]);
    if (turned == 0) return fmt::format("corner {} lies in line with its neighbours", (i + 1) % count + 1);
    ++(turned < 0 ? lefts : rights);
  }
  if (lefts != 0 && rights != 0) return "the polygon is not convex; cut it into parts that are";
  // With turns to one side alone it is convex, unless it goes around more than once: then some corner is not behind an edge
  // of others.
  for (std::size_t i = 0; i < count; ++i)
    for (std::size_t other = i + 2; other < i + count; ++other) {
      const double side = turn(corners[i], corners[(i + 1) % count], corners[other % count]);
      if (lefts != 0 ? side >= 0 : side <= 0) return "the polygon crosses itself";
    }
  return {};
}

Shape::Shape(std::span<const Vec2> corners, float radius)
    : count_(static_cast<std::uint8_t>(corners.size())), radius_(radius) {
  std::copy(corners.begin(), corners.end(), corners_.begin());
  const auto all = std::span(corners_).first(count_);
  if (count_ > 2 && turn(all[0], all[1], all[2]) < 0) std::reverse(all.begin(), all.end());
  std::rotate(all.begin(), std::min_element(all.begin(), all.end(), comes_before), all.end());
}

Shape Shape::box(const Rect& box) {
  const std::array<Vec2, 4> corners{Vec2{box.left(), box.top()}, Vec2{box.right(), box.top()},
                                    Vec2{box.right(), box.bottom()}, Vec2{box.left(), box.bottom()}};
  // Also above 0 where the corners are: a float may be too coarse for the size.
  expect(corners[0].x < corners[1].x && corners[1].y < corners[2].y,
         [] { return std::string("a box has a width and a height above 0"); });
  expect_near(corners);
  return {corners, 0};
}

Shape Shape::circle(Vec2 middle, float radius) {
  expect_radius(radius);
  expect_near({&middle, 1});
  return {{&middle, 1}, radius};
}

Shape Shape::capsule(Vec2 from, Vec2 to, float radius) {
  if (from == to) return circle(from, radius);
  const std::array<Vec2, 2> ends{from, to};
  expect_radius(radius);
  expect_near(ends);
  return {ends, radius};
}

Shape Shape::polygon(std::span<const Vec2> corners) {
  const std::string wrong = wrong_with_corners(corners);
  expect(wrong.empty(), [&wrong] { return wrong; });
  return {corners, 0};
}

Rect Shape::bounds() const {
  Vec2 least = corners_[0], most = corners_[0];
  for (const Vec2 corner : corners()) {
    least = {std::min(least.x, corner.x), std::min(least.y, corner.y)};
    most = {std::max(most.x, corner.x), std::max(most.y, corner.y)};
  }
  return {least - Vec2(radius_), most - least + Vec2(2 * radius_)};
}

Shape Shape::moved_by(Vec2 by) const {
  Shape moved = *this;
  for (Vec2& corner : std::span(moved.corners_).first(count_)) corner += by;
  return moved;
}

Shape Shape::mirrored() const {
  std::array<Vec2, most_corners> corners{};
  std::transform(corners_.begin(), corners_.begin() + count_, corners.begin(), [](Vec2 corner) {
    return Vec2{-corner.x, corner.y};
  });
  return {std::span(corners).first(count_), radius_};
}

Shape Shape::turned(float degrees) const {
  const float sine = sin_degrees(degrees), cosine = cos_degrees(degrees);
  std::array<Vec2, most_corners> corners{};
  std::transform(corners_.begin(), corners_.begin() + count_, corners.begin(), [=](Vec2 corner) {
    return Vec2{corner.x * cosine - corner.y * sine, corner.x * sine + corner.y * cosine};
  });
  return {std::span(corners).first(count_), radius_};
}

bool operator==(const Shape& a, const Shape& b) {
  return a.radius_ == b.radius_ &&
         std::equal(a.corners().begin(), a.corners().end(), b.corners().begin(), b.corners().end());
}

}  // namespace vole
