// Shapes against plain ways of looking at them: corner by corner, and in tiny steps.
#include "vole/physics/shape.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>

#include "support.hpp"
#include "vole/physics/shape_contact.hpp"

namespace {

using vole::Shape;
using vole::Vec2;

struct Spot {
  double x = 0;
  double y = 0;
};
Spot operator-(Spot a, Spot b) {
  return {a.x - b.x, a.y - b.y};
}
double dot(Spot a, Spot b) {
  return a.x * b.x + a.y * b.y;
}
double cross(Spot a, Spot b) {
  return a.x * b.y - a.y * b.x;
}

std::vector<Spot> corners_at(const Shape& shape, Spot at) {
  std::vector<Spot> corners;
  for (const Vec2 corner : shape.corners())
    corners.push_back({static_cast<double>(corner.x) + at.x, static_cast<double>(corner.y) + at.y});
  return corners;
}

double to_segment(Spot point, Spot from, Spot to) {
  const Spot edge = to - from;
  const double size = dot(edge, edge);
  const double along = size == 0 ? 0 : std::clamp(dot(point - from, edge) / size, 0.0, 1.0);
  const Spot left{point.x - from.x - edge.x * along, point.y - from.y - edge.y * along};
  return std::sqrt(dot(left, left));
}

bool cross_each_other(Spot a, Spot b, Spot c, Spot d) {
  return cross(b - a, c - a) * cross(b - a, d - a) < 0 && cross(d - c, a - c) * cross(d - c, b - c) < 0;
}

bool inside(Spot point, const std::vector<Spot>& polygon) {
  if (polygon.size() < 3) return false;
  for (std::size_t i = 0; i < polygon.size(); ++i)
    if (cross(polygon[(i + 1) % polygon.size()] - polygon[i], point - polygon[i]) < 0) return false;
  return true;
}

// How far two polygons are apart, edge against edge; 0 when they overlap.
double apart(const std::vector<Spot>& a, const std::vector<Spot>& b) {
  if (inside(a[0], b) || inside(b[0], a)) return 0;
  double least = std::numeric_limits<double>::infinity();
  for (std::size_t i = 0; i < a.size(); ++i)
    for (std::size_t j = 0; j < b.size(); ++j) {
      const Spot a0 = a[i], a1 = a[(i + 1) % a.size()], b0 = b[j], b1 = b[(j + 1) % b.size()];
      if (cross_each_other(a0, a1, b0, b1)) return 0;
      least = std::min({least, to_segment(a0, b0, b1), to_segment(a1, b0, b1), to_segment(b0, a0, a1),
                        to_segment(b1, a0, a1)});
    }
  return least;
}

Spot spot(Vec2 at) {
  return {static_cast<double>(at.x), static_cast<double>(at.y)};
}

// Below 0 when they overlap, though then not always by how much.
double slow_gap(const Shape& a, Spot at, const Shape& b, Vec2 b_at) {
  return apart(corners_at(a, at), corners_at(b, spot(b_at))) - static_cast<double>(a.radius()) -
         static_cast<double>(b.radius());
}

double from_point(Vec2 point, const Shape& shape, Vec2 at) {
  return apart({spot(point)}, corners_at(shape, spot(at))) - static_cast<double>(shape.radius());
}

Vec2 random_point(vole::Random& chance, float reach) {
  const Vec2 point{chance.within(-reach, reach), chance.within(-reach, reach)};
  // Now and then in line with others, as things on a grid are.
  return chance.chance(0.3f) ? Vec2{std::round(point.x), std::round(point.y)} : point;
}

Shape random_polygon(vole::Random& chance) {
  while (true) {
    std::vector<Vec2> corners;
    const float start = chance.within(0, 360), width = chance.within(1, 20), height = chance.within(1, 20);
    const int count = 3 + static_cast<int>(chance.below(14));
    for (int i = 0; i < count; ++i) {
      const float angle =
          start + 360.0f * (static_cast<float>(i) + chance.within(0, 0.9f)) / static_cast<float>(count);
      corners.push_back({width * std::cos(angle * 0.0174533f), height * std::sin(angle * 0.0174533f)});
    }
    if (chance.chance(0.5f)) std::reverse(corners.begin(), corners.end());
    if (vole::wrong_with_corners(corners).empty()) return Shape::polygon(corners);
  }
}

Shape random_shape(vole::Random& chance) {
  switch (chance.below(4)) {
    case 0:
      return Shape::box(
          {random_point(chance, 10), {chance.within(0.5f, 20), std::ceil(chance.within(0.5f, 20))}});
    case 1:
      return Shape::circle(random_point(chance, 10), chance.within(0.1f, 12));
    case 2:
      return Shape::capsule(random_point(chance, 12), random_point(chance, 12), chance.within(0.1f, 8));
    default:
      return random_polygon(chance);
  }
}

float length(Vec2 a) {
  return std::sqrt(a.x * a.x + a.y * a.y);
}

Vec2 along(Vec2 from, Vec2 direction, double by) {
  return {static_cast<float>(static_cast<double>(from.x) + static_cast<double>(direction.x) * by),
          static_cast<float>(static_cast<double>(from.y) + static_cast<double>(direction.y) * by)};
}

}  // namespace

TEST_CASE("the gap between two shapes is that of their edges, and the way out is the shortest") {
  vole::Random chance(71);
  for (int i = 0; i < cases(20000); ++i) {
    CAPTURE(i);
    const Shape a = random_shape(chance), b = random_shape(chance);
    const Vec2 at = random_point(chance, 30), b_at = random_point(chance, 30);
    const vole::ShapeGap gap = vole::gap_between(a, at, b, b_at);
    const double slow = slow_gap(a, spot(at), b, b_at);
    const bool cores_apart = apart(corners_at(a, spot(at)), corners_at(b, spot(b_at))) > 0;
    REQUIRE(std::abs(length(gap.normal) - 1) < 1e-5f);
    if (cores_apart) REQUIRE(std::abs(gap.distance - slow) < 1e-4);
    REQUIRE((gap.distance < 1e-4) == (slow < 1e-4));
    // The nearest point lies on the other's outline, and the first is as far from it as the gap is wide.
    if (gap.distance > 1e-3) {
      REQUIRE(std::abs(from_point(gap.point, b, b_at)) < 1e-3);
      REQUIRE(std::abs(from_point(gap.point, a, at) - gap.distance) < 1e-3);
    }
    // Going along the normal by what is missing, they only touch; no other way is shorter.
    const auto after = [&](Vec2 way, double by) { return slow_gap(a, spot(along(at, way, by)), b, b_at); };
    REQUIRE(std::abs(after(gap.normal, 1 - gap.distance) - 1) < 1e-3);
    if (gap.distance > -0.1) continue;
    for (int turn = 0; turn < 16; ++turn) {
      const float angle = static_cast<float>(turn) * 0.392699f;
      REQUIRE(after({std::cos(angle), std::sin(angle)}, -gap.distance - 0.01) < 1e-3);
    }
    const vole::ShapeGap back = vole::gap_between(b, b_at, a, at);
    REQUIRE(std::abs(back.distance - gap.distance) < 1e-9);
  }
}

TEST_CASE("a swept shape stops where tiny steps first meet the other, at any speed") {
  vole::Random chance(72);
  int hits = 0;
  for (int i = 0; i < cases(20000); ++i) {
    CAPTURE(i);
    const Shape a = random_shape(chance), b = random_shape(chance);
    const Vec2 at = random_point(chance, 60), b_at = random_point(chance, 20);
    const Vec2 motion = chance.chance(0.8f) ? (b_at - at) * chance.within(0.2f, 3) + random_point(chance, 20)
                                            : random_point(chance, 2000);
    if (slow_gap(a, spot(at), b, b_at) < 1e-3) continue;
    const vole::ShapeHit hit = vole::sweep_shape(a, at, motion, b, b_at);
    const auto gap_at = [&](double when) {
      return slow_gap(a,
                      {static_cast<double>(at.x) + static_cast<double>(motion.x) * when,
                       static_cast<double>(at.y) + static_cast<double>(motion.y) * when},
                      b, b_at);
    };
    // As long steps as the gap allows: nothing is stepped over.
    const double size = static_cast<double>(length(motion));
    double when = 0, gap = gap_at(0);
    while (when < 1 && gap > 1e-4) gap = gap_at(when += std::max(gap, 1e-4) / size);
    REQUIRE(hit.when >= 0);
    if (hit.hit) {
      ++hits;
      REQUIRE(hit.when < 1);
      REQUIRE(std::abs(gap_at(hit.when)) < 1e-4);
      // At a very flat angle a small gap lasts long.
      const double approach = -(static_cast<double>(motion.x) * static_cast<double>(hit.normal.x) +
                                static_cast<double>(motion.y) * static_cast<double>(hit.normal.y));
      REQUIRE(approach > 0);
      REQUIRE((hit.when - when) * size < 3e-4 * size / approach + 3e-4);
      REQUIRE(std::abs(length(hit.normal) - 1) < 1e-5f);
      REQUIRE(std::abs(from_point(hit.point, b, b_at)) < 1e-3);
      REQUIRE(std::abs(from_point(hit.point, a, along(at, motion, hit.when))) < 1e-3);
    } else {
      // Nothing was met: no step came into it, but for grazing it.
      for (int step = 0; step <= 200; ++step) REQUIRE(gap_at(step / 200.0) > -2 * vole::touch_slack);
    }
  }
  CHECK(hits > cases(20000) / 3);
}

TEST_CASE("a ray meets what a point on its way meets") {
  vole::Random chance(73);
  int hits = 0;
  for (int i = 0; i < cases(20000); ++i) {
    CAPTURE(i);
    const Shape shape = random_shape(chance);
    const Vec2 from = random_point(chance, 40), at = random_point(chance, 20);
    const Vec2 motion = (at - from) * chance.within(0.2f, 3) + random_point(chance, 12);
    const vole::ShapeHit hit = vole::cast_ray(from, motion, shape, at);
    if (from_point(from, shape, at) <= 0) {
      REQUIRE((hit.hit && hit.when == 0));
      continue;
    }
    for (double when = 0; when < hit.when - 1e-4; when += 1.0 / 256)
      REQUIRE(from_point(along(from, motion, when), shape, at) > -2 * vole::touch_slack);
    if (!hit.hit) continue;
    ++hits;
    const Vec2 end = along(from, motion, hit.when);
    REQUIRE(std::abs(from_point(end, shape, at)) < 1e-3);
    REQUIRE(length(end - hit.point) < 1e-3f);
  }
  CHECK(hits > cases(20000) / 3);
}

TEST_CASE("what touches slides, what goes deeper is held, and what is inside gets out") {
  const Shape box = Shape::box({{-8, -16}, {16, 16}});
  const Shape ground = Shape::box({{-100, 0}, {200, 20}});
  CHECK_FALSE(vole::sweep_shape(box, {0, 0}, {50, 0}, ground, {0, 0}).hit);
  CHECK_FALSE(vole::sweep_shape(box, {0, 0}, {50, -3}, ground, {0, 0}).hit);
  const vole::ShapeHit held = vole::sweep_shape(box, {0, 0}, {50, 1}, ground, {0, 0});
  CHECK((held.hit && held.when == 0 && held.normal == Vec2(0, -1)));
  CHECK_FALSE(vole::sweep_shape(box, {0, 5}, {0, -1}, ground, {0, 0}).hit);
  CHECK(vole::sweep_shape(box, {0, 5}, {0, 1}, ground, {0, 0}).hit);
  // Along a row of boxes, each as high as the next, none is felt.
  for (int i = -5; i < 5; ++i)
    CHECK_FALSE(vole::sweep_shape(box, {-80, 0}, {160, 0}, Shape::box({{0, 0}, {16, 16}}),
                                  {static_cast<float>(i * 16), 0})
                    .hit);
  // Down a slope and along it, by what is left of the motion.
  const Shape slope = Shape::polygon(std::array{Vec2{0, 0}, Vec2{64, 64}, Vec2{0, 64}});
  const Shape ball = Shape::circle({0, 0}, 5);
  const vole::ShapeHit landed = vole::sweep_shape(ball, {20, -20}, {0, 100}, slope, {0, 0});
  REQUIRE(landed.hit);
  const Vec2 rest = along({20, -20}, {0, 100}, landed.when);
  CHECK(std::abs(landed.normal.x - 0.70710678f) < 1e-6f);
  CHECK_FALSE(vole::sweep_shape(ball, rest, {30, 30}, slope, {0, 0}).hit);
  CHECK_FALSE(vole::sweep_shape(ball, rest, {-20, -20}, slope, {0, 0}).hit);
}

TEST_CASE("corners are a convex polygon when they are their own hull") {
  vole::Random chance(74);
  int good = 0;
  const auto turn = [](Vec2 a, Vec2 b, Vec2 c) {
    return (b.x - a.x) * (c.y - b.y) - (b.y - a.y) * (c.x - b.x);
  };
  for (int i = 0; i < cases(40000); ++i) {
    std::vector<Vec2> corners(3 + chance.below(4));
    for (Vec2& corner : corners)
      corner = {static_cast<float>(chance.below(5)), static_cast<float>(chance.below(5))};
    // The hull, by going around from the first point in order.
    std::vector<Vec2> sorted = corners, hull;
    std::sort(sorted.begin(), sorted.end(),
              [](Vec2 a, Vec2 b) { return a.x < b.x || (a.x == b.x && a.y < b.y); });
    for (int half = 0; half < 2; ++half) {
      const std::size_t start = hull.size();
      for (const Vec2 point : sorted) {
        while (hull.size() >= start + 2 && turn(hull[hull.size() - 2], hull.back(), point) <= 0)
          hull.pop_back();
        hull.push_back(point);
      }
      hull.pop_back();
      std::reverse(sorted.begin(), sorted.end());
    }
    bool same = hull.size() == corners.size();
    if (same) {
      const auto first = std::find(corners.begin(), corners.end(), hull[0]);
      std::rotate(corners.begin(), first, corners.end());
      std::vector<Vec2> other = corners;
      std::reverse(other.begin() + 1, other.end());
      same = corners == hull || other == hull;
    }
    CAPTURE(i);
    REQUIRE(vole::wrong_with_corners(corners).empty() == same);
    good += same;
  }
  CHECK(good > 100);
}

TEST_CASE("shapes keep their corners in one order, and turn and mirror exactly where they can") {
  vole::Random chance(75);
  for (int i = 0; i < cases(500); ++i) {
    const Shape shape = random_shape(chance);
    Shape turned = shape;
    for (int quarter = 0; quarter < 4; ++quarter) turned = turned.turned(90);
    CHECK(turned == shape);
    CHECK(shape.mirrored().mirrored() == shape);
    CHECK(shape.turned(180).mirrored() == shape.mirrored().turned(180));
    const vole::Rect box = shape.bounds(), mirrored = shape.mirrored().bounds();
    CHECK(mirrored.left() == Approx(-box.right()).margin(1e-4));
    CHECK(mirrored.top() == Approx(box.top()).margin(1e-4));
    CHECK(shape.moved_by({3, 4}).bounds().top() == Approx(box.top() + 4).margin(1e-4));
    const auto corners = shape.corners();
    if (corners.size() < 3) continue;
    std::vector<Vec2> other(corners.rbegin(), corners.rend());
    CHECK(Shape::polygon(other) == shape);
    for (const Vec2 corner : corners)
      CHECK((corner.y > corners[0].y || (corner.y == corners[0].y && corner.x >= corners[0].x)));
  }
}

TEST_CASE("what is no shape is refused with the reason") {
  const TempFolder folder;
  const float nan = std::numeric_limits<float>::quiet_NaN(),
              infinite = std::numeric_limits<float>::infinity();
  const auto wrong = [&](const auto& make) { return error_of([&] { (void)make(); }, folder); };
  const auto corners = [](std::initializer_list<Vec2> list) {
    return vole::wrong_with_corners(std::vector<Vec2>(list));
  };
  CHECK(corners({{0, 0}, {1, 0}}) == "a polygon has 3 to 16 corners, and this one 2");
  CHECK(vole::wrong_with_corners(std::vector<Vec2>(10000)) ==
        "a polygon has 3 to 16 corners, and this one 10000");
  CHECK(corners({{0, 0}, {1, 0}, {2, 0}}) == "corner 2 lies in line with its neighbours");
  CHECK(corners({{0, 0}, {1, 0}, {1, 0}}) == "corners 2 and 3 are the same");
  CHECK(corners({{0, 0}, {4, 0}, {1, 1}, {0, 4}}) == "the polygon is not convex; cut it into parts that are");
  CHECK(corners({{0, -10}, {6, 8}, {-10, -3}, {10, -3}, {-6, 8}}) == "the polygon crosses itself");
  CHECK(corners({{0, 0}, {4, 0}, {0, 4}, {0, 0}, {4, 0}, {0, 4}}) == "the polygon crosses itself");
  CHECK(corners({{0, 0}, {nan, 0}, {0, 1}}) == "corner 2 is not within 8192 pixels of the position");
  CHECK(corners({{0, 0}, {9, 0}, {0, -infinite}}) == "corner 3 is not within 8192 pixels of the position");
  CHECK(wrong([&] {
          return Shape::circle({0, 0}, 0);
        }).find("a radius is above 0 and at most 8192") != std::string::npos);
  CHECK(wrong([&] {
          return Shape::circle({nan, 0}, 1);
        }).find("a shape lies within 8192 pixels") != std::string::npos);
  CHECK_FALSE(wrong([&] { return Shape::circle({0, 0}, nan); }).empty());
  CHECK_FALSE(wrong([&] { return Shape::capsule({0, 0}, {0, 9}, -1); }).empty());
  CHECK_FALSE(wrong([&] { return Shape::capsule({0, 0}, {0, 9000}, 1); }).empty());
  CHECK(wrong([&] {
          return Shape::box({{0, 0}, {0, 9}});
        }).find("a width and a height above 0") != std::string::npos);
  CHECK_FALSE(wrong([&] { return Shape::box({{0, 0}, {nan, 9}}); }).empty());

  const Shape box = Shape::box({{-8, -16}, {16, 16}});
  for (const Vec2 bad : {Vec2{nan, 0}, Vec2{0, infinite}, Vec2{-infinite, nan}}) {
    CHECK_FALSE(vole::sweep_shape(box, bad, {1, 0}, box, {0, 0}).hit);
    CHECK_FALSE(vole::sweep_shape(box, {0, 0}, bad, box, {0, 0}).hit);
    CHECK_FALSE(vole::cast_ray({0, 0}, {1, 0}, box, bad).hit);
    CHECK_FALSE(vole::cast_ray(bad, {1, 0}, box, {0, 0}).hit);
    CHECK_FALSE(vole::cast_ray({0, -8}, bad, box, {0, 0}).hit);
    CHECK(vole::gap_between(box, bad, box, {0, 0}).distance > 1e30);
  }
  CHECK_FALSE(vole::sweep_shape(box, {1e30f, 0}, {-1e30f, 1e30f}, box, {0, 0}).hit);
}
