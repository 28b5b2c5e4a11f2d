#include "vole/physics/shape_contact.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <optional>

#include "difference.hpp"

namespace vole {
namespace {

double length(Point a) {
  return std::sqrt(dot(a, a));
}

// To the right of an edge's direction as numbers go, which is outside. Not of length 1.
Point outward(Point edge) {
  return {edge.y, -edge.x};
}

// The nearest spot of the outline to the position of the moving shape, which is the origin.
struct Nearest {
  double distance = 0;  // to the polygon, without the radius; below 0 inside
  Point normal;         // of length 1
  std::size_t edge = 0;
  double along = 0;
};

// The edge that is left soonest when the origin lies inside; nothing when it does not.
std::optional<Nearest> nearest_inside(const Difference& difference) {
  if (difference.count() < 3) return std::nullopt;
  Nearest nearest{-std::numeric_limits<double>::infinity(), {}, 0, 0};
  for (std::size_t i = 0; i < difference.edges(); ++i) {
    const Point edge = difference.edge(i), normal = outward(edge);
    const double size = length(edge);
    const double distance = -dot(normal, difference.corner(i)) / size;
    if (distance > 0) return std::nullopt;
    if (distance <= nearest.distance) continue;
    const double along = -dot(edge, difference.corner(i)) / (size * size);
    nearest = {distance, normal * (1 / size), i, std::clamp(along, 0.0, 1.0)};
  }
  return nearest;
}

Nearest nearest_to_corner(const Difference& difference) {
  const Point to_corner = difference.corner(0);
  const double distance = length(to_corner);
  return {distance, distance > 0 ? to_corner * (-1 / distance) : Point{0, -1}, 0, 0};
}

Nearest nearest_outside(const Difference& difference) {
  if (difference.edges() == 0) return nearest_to_corner(difference);
  Nearest nearest{std::numeric_limits<double>::infinity(), {}, 0, 0};
  for (std::size_t i = 0; i < difference.edges(); ++i) {
    const Point start = difference.corner(i), edge = difference.edge(i);
    const double along = std::clamp(-dot(start, edge) / dot(edge, edge), 0.0, 1.0);
    const Point spot = start + edge * along;
    const double distance = length(spot);
    if (distance >= nearest.distance) continue;
    const Point normal = distance > 0 ? spot * (-1 / distance) : outward(edge) * (1 / length(edge));
    nearest = {distance, normal, i, along};
  }
  return nearest;
}

Nearest nearest_spot(const Difference& difference) {
  const std::optional<Nearest> inside = nearest_inside(difference);
  return inside ? *inside : nearest_outside(difference);
}

// The point of the other's outline that belongs to a spot of the difference.
Vec2 point_of(const Difference& difference, const Nearest& spot, const Shape& other, Vec2 other_at) {
  return rounded(difference.on_other(spot.edge, spot.along) + exact(other_at) +
                 spot.normal * static_cast<double>(other.radius()));
}

// When the origin, moving, enters; above 1: not within the motion.
struct Entry {
  double when = 2;
  Point normal;
  std::size_t edge = 0;
  double along = 0;
};

// A polygon without a radius, clipped edge by edge, so that nothing slips through between two of them.
Entry entry_to_polygon(const Difference& difference, Point motion) {
  Entry entry{-1, {}, 0, 0};
  double leaves = 2;
  for (std::size_t i = 0; i < difference.edges(); ++i) {
    const Point normal = outward(difference.edge(i));
    const double inside = dot(normal, difference.corner(i)), speed = dot(normal, motion);
    if (speed == 0 && inside <= 0) return {};  // along the edge, or beside it
    if (speed < 0 && inside / speed > entry.when) entry = {inside / speed, normal, i, 0};
    if (speed > 0) leaves = std::min(leaves, inside / speed);
  }
  if (entry.when < 0 || entry.when >= leaves) return {};
  const Point edge = difference.edge(entry.edge), start = difference.corner(entry.edge);
  entry.along = std::clamp(dot(motion * entry.when - start, edge) / dot(edge, edge), 0.0, 1.0);
  entry.normal = entry.normal * (1 / length(entry.normal));
  return entry;
}

// The edges of a polygon with a radius, moved outwards by it.
void enter_edges(const Difference& difference, Point motion, Entry& entry) {
  for (std::size_t i = 0; i < difference.edges(); ++i) {
    const Point edge = difference.edge(i), normal = outward(edge) * (1 / length(edge));
    const Point start = difference.corner(i) + normal * difference.radius();
    const double speed = dot(normal, motion);
    if (!(speed < 0)) continue;
    const double when = dot(normal, start) / speed;
    const double along = dot(motion * when - start, edge) / dot(edge, edge);
    if (when >= 0 && when < entry.when && along >= 0 && along <= 1) entry = {when, normal, i, along};
  }
}

// The circles around its corners.
void enter_corners(const Difference& difference, Point motion, Entry& entry) {
  const double speed = dot(motion, motion), radius = difference.radius();
  for (std::size_t i = 0; i < difference.count(); ++i) {
    const Point corner = difference.corner(i);
    const double towards = dot(motion, corner);
    const double root = towards * towards - speed * (dot(corner, corner) - radius * radius);
    if (towards <= 0 || root <= 0) continue;
    const double when = (towards - std::sqrt(root)) / speed;
    if (when < 0 || when >= entry.when) continue;
    const Point from = motion * when - corner;
    entry = {when, from * (1 / length(from)), i, 0};
  }
}

Entry entry_to(const Difference& difference, Point motion) {
  if (difference.radius() == 0) return entry_to_polygon(difference, motion);
  Entry entry;
  enter_edges(difference, motion, entry);
  enter_corners(difference, motion, entry);
  return entry;
}

bool is_number(Vec2 a) {
  return std::isfinite(a.x) && std::isfinite(a.y);
}

// Rounding alone is no approach: what slides along a slope would be held by it.
bool goes_deeper(Point motion, Point normal) {
  return dot(motion, normal) < -touch_slack;
}

ShapeHit hit_of(const Difference& difference, Point motion, const Shape& other, Vec2 other_at,
                bool from_inside) {
  const Nearest start = nearest_spot(difference);
  if (start.distance <= difference.radius()) {
    if (!from_inside && !goes_deeper(motion, start.normal)) return {};
    return {true, 0, rounded(start.normal), point_of(difference, start, other, other_at)};
  }
  const Entry entry = entry_to(difference, motion);
  if (!(entry.when < 1) || !goes_deeper(motion * (1 - entry.when), entry.normal)) return {};
  const Nearest spot{0, entry.normal, entry.edge, entry.along};
  return {true, entry.when, rounded(entry.normal), point_of(difference, spot, other, other_at)};
}

}  // namespace

ShapeGap gap_between(const Shape& shape, Vec2 at, const Shape& other, Vec2 other_at) {
  if (!is_number(at) || !is_number(other_at))
    return {std::numeric_limits<double>::infinity(), {0, -1}, {0, 0}};
  const Difference difference(other, &shape, exact(other_at) - exact(at));
  const Nearest spot = nearest_spot(difference);
  return {spot.distance - difference.radius(), rounded(spot.normal),
          point_of(difference, spot, other, other_at)};
}

ShapeHit sweep_shape(const Shape& shape, Vec2 at, Vec2 motion, const Shape& other, Vec2 other_at) {
  if (!is_number(at) || !is_number(motion) || !is_number(other_at)) return {};
  return hit_of({other, &shape, exact(other_at) - exact(at)}, exact(motion), other, other_at, false);
}

ShapeHit cast_ray(Vec2 from, Vec2 motion, const Shape& other, Vec2 other_at) {
  if (!is_number(from) || !is_number(motion) || !is_number(other_at)) return {};
  return hit_of({other, nullptr, exact(other_at) - exact(from)}, exact(motion), other, other_at, true);
}

}  // namespace vole
