#include "shape_path.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>
#include <utility>

#include "boxes.hpp"
#include "entered_cells.hpp"
#include "point.hpp"

namespace vole {
namespace {

// Further than rounding, and less than can be seen.
constexpr float reach_of_ground = 1.0f / 64;

// The edges of a tile's shape, of which those that lie on a neighbour's side are not felt.
struct TileEdges {
  const SolidGrid& grid;
  const SolidShape& tile;

  std::span<const Vec2> corners() const { return tile.shape->corners(); }
  std::size_t count() const { return corners().size(); }
  Point normal(std::size_t i) const {
    const Point edge = exact(corners()[(i + 1) % count()]) - exact(corners()[i]);
    return Point{edge.y, -edge.x} * (1 / std::sqrt(dot(edge, edge)));
  }
  bool hidden(std::size_t i) const { return grid.edge_hidden(tile.cell, i); }
};

// The way in which a tile holds. At a corner of which one edge is hidden only the other is felt; (0, 0) where nothing is.
Vec2 felt_normal(const SolidGrid& grid, const SolidShape& solid, Vec2 normal) {
  if (solid.body != no_body) return normal;
  const TileEdges edges{grid, solid};
  std::size_t furthest = 0;
  for (std::size_t i = 0; i < edges.count(); ++i) {
    if (dot(edges.normal(i), exact(normal)) > 1 - 1e-9) return edges.hidden(i) ? Vec2{0, 0} : normal;
    const auto reach = [&](std::size_t corner) { return dot(exact(edges.corners()[corner]), exact(normal)); };
    if (reach(i) > reach(furthest)) furthest = i;
  }
  const std::size_t before = (furthest + edges.count() - 1) % edges.count();
  const bool first = edges.hidden(before), second = edges.hidden(furthest);
  if (!first && !second) return normal;
  if (first && second) return {0, 0};
  return rounded(edges.normal(first ? furthest : before));
}

bool lets_through(const SolidShape& solid, const ShapeHit& hit, const Shape& shape, Vec2 at) {
  if (solid.one_way == OneWay::no) return false;
  const Vec2 n = hit.normal;
  const auto sign = [](float value) { return value > 1e-4f ? 1 : value < -1e-4f ? -1 : 0; };
  return !holds(solid.one_way, sign(n.x), sign(n.y)) ||
         gap_between(shape, at, *solid.shape, solid.at).distance < -static_cast<double>(reach_of_ground);
}

double into(Vec2 motion, Vec2 normal) {
  return dot(exact(motion), exact(normal));
}

}  // namespace

Vec2 BodyMoved::kept(Vec2 velocity) const {
  for (std::size_t i = 0; i < normal_count; ++i) {
    const double part = into(velocity, normals[i]);
    if (part < 0) velocity = rounded(exact(velocity) - exact(normals[i]) * part);
  }
  return velocity;
}

ShapeMotion::ShapeMotion(const ShapeSurroundings& around, std::span<const Shape> shapes, Vec2 at,
                         double steepest)
    : around_(around), shapes_(shapes), bounds_(bounds_of(shapes)), steepest_(steepest) {
  moved_.at = at;
}

bool ShapeMotion::is_ground(Vec2 normal) const {
  return normal.y < 0 &&
         static_cast<double>(std::abs(normal.x)) <= static_cast<double>(-normal.y) * steepest_ * 1.00001;
}

void ShapeMotion::meet(const SolidShape& solid, Vec2 motion, Hit& first) const {
  for (const Shape& shape : shapes_) {
    ShapeHit hit = sweep_shape(shape, moved_.at, motion, *solid.shape, solid.at);
    if (!hit.hit || (first.any && hit.when >= first.hit.when)) continue;
    const Vec2 felt = felt_normal(around_.grid, solid, hit.normal);
    if (felt != hit.normal && into(motion, felt) * (1 - hit.when) >= -touch_slack) continue;
    hit.normal = felt;
    if (!lets_through(solid, hit, shape, moved_.at)) first = {true, hit, solid.body, solid.cell};
  }
}

ShapeMotion::Hit ShapeMotion::sweep(Vec2 motion) const {
  Hit first;
  for (const SolidShape& solid : around_.shapes) meet(solid, motion, first);
  // A little wider, since the box around the shapes is rounded to the lattice.
  const LatticeBox box = to_lattice(bounds_.moved_by(moved_.at));
  const LatticeBox wider{box.left - 2, box.top - 2, box.right + 2, box.bottom + 2};
  visit_entered_cells(
      around_.grid, wider, to_lattice(motion),
      [&](std::int64_t x, std::int64_t y) {
        const CellForm* const form = around_.grid.form(x, y);
        if (!form || (around_.mask >> form->category & 1u) == 0) return;
        if (form->one_way != OneWay::no && around_.through_one_way) return;
        const IVec2 cell{static_cast<int>(x), static_cast<int>(y)};
        meet({&form->shape(), Vec2(cell * around_.grid.cell()), form->one_way, no_body, cell}, motion, first);
      },
      [&](const Moment& when) { return !first.any || when.share() <= first.hit.when; });
  return first;
}

ShapeMotion::Hit ShapeMotion::go(Vec2 motion) {
  const Hit hit = sweep(motion);
  moved_.at = rounded(exact(moved_.at) + exact(motion) * (hit.any ? hit.hit.when : 1));
  return hit;
}

void ShapeMotion::hold(const Hit& hit) {
  const Vec2 normal = hit.hit.normal;
  const Touch touch{true, normal, hit.body};
  if (moved_.normal_count < moved_.normals.size()) moved_.normals[moved_.normal_count++] = normal;
  if (is_ground(normal))
    moved_.below = touch;
  else if (normal.y >= std::abs(normal.x))
    moved_.above = touch;
  else
    (normal.x > 0 ? moved_.left : moved_.right) = touch;
}

Vec2 ShapeMotion::go_along(Vec2 motion, bool lands) {
  constexpr int most_legs = 8;
  for (int leg = 0; leg < most_legs && motion != Vec2{0, 0}; ++leg) {
    const Hit hit = go(motion);
    if (!hit.any) break;
    hold(hit);
    Point rest = exact(motion) * (1 - hit.hit.when);
    if (lands && is_ground(hit.hit.normal)) return rounded(rest);
    const Point normal = exact(hit.hit.normal);
    rest = rest - normal * std::min(dot(rest, normal), 0.0);
    motion = rounded(rest);
    for (std::size_t i = 0; i + 1 < moved_.normal_count; ++i)
      if (into(motion, moved_.normals[i]) < -touch_slack) motion = {0, 0};
  }
  return {0, 0};
}

BodyMoved ShapeMotion::fly(Vec2 motion) {
  const Vec2 rest = go_along(motion, true);
  return moved_.below.any ? walk(rest.x) : moved_;
}

Touch ShapeMotion::ground() const {
  const Hit hit = sweep({0, reach_of_ground});
  if (!hit.any || !is_ground(hit.hit.normal)) return {};
  return {true, hit.hit.normal, hit.body};
}

// One leg along the ground that is below, and down again to it. Returns the ground that is there then; none also where
// something holds it.
Touch ShapeMotion::walk_leg(const Touch& on, float way) {
  const float step = std::abs(way);
  const Hit hit = go(Vec2{-on.normal.y, on.normal.x} * way);
  if (hit.any && is_ground(hit.hit.normal)) return {true, hit.hit.normal, hit.body};
  if (hit.any) hold(hit);
  const float drop = step * static_cast<float>(steepest_) + reach_of_ground;
  const Hit down = sweep({0, drop});
  if (!down.any || !is_ground(down.hit.normal)) return {};
  moved_.at.y += drop * static_cast<float>(down.hit.when);
  return {true, down.hit.normal, down.body};
}

// In legs of at most a pixel, so that round things follow corners. A leg that came out longer, since it went down around
// one, is walked again shorter.
BodyMoved ShapeMotion::walk(float length) {
  constexpr int most_legs = 256;
  const float direction = length < 0 ? -1.0f : 1.0f;
  double left = std::abs(static_cast<double>(length));
  Touch on = ground();
  for (int leg = 0; leg < most_legs && left > 0 && on.any; ++leg) {
    const BodyMoved before = moved_;
    const double step = std::min(left, 1.0);
    const auto go_leg = [&](double along) {
      moved_ = before;
      const Touch now = walk_leg(on, direction * static_cast<float>(along));
      const Point way = exact(moved_.at) - exact(before.at);
      return std::pair(now, std::sqrt(dot(way, way)));
    };
    auto [now, gone] = go_leg(step);
    if (gone > step) std::tie(now, gone) = go_leg(step * step / gone);
    on = now;
    left = moved_.normal_count > before.normal_count ? 0 : left - (on.any ? gone : step);
  }
  moved_.below = on;
  if (!on.any && left > 0) go_along({direction * static_cast<float>(left), 0}, false);
  return moved_;
}

}  // namespace vole
