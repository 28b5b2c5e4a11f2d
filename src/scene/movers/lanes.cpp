#include "lanes.hpp"

#include "scene/bodies/level_edges.hpp"
#include "vole/physics/subpixel.hpp"

namespace vole {
namespace {

std::int64_t past_crossing(float middle, float origin, int cell) {
  const std::int64_t size = cell * subpixels;
  const std::int64_t from = to_subpixels(middle) - to_subpixels(origin) - size / 2;
  return ((from % size) + size) % size;
}

}  // namespace

Vec2 middle_of(const CollisionBody& body) {
  const Rect bounds = body.bounds();
  return bounds.at + bounds.size * 0.5f - body.at;
}

OnLanes on_lanes(const GridMover& mover, Vec2 middle) {
  return {past_crossing(middle.x, mover.origin.x, mover.cell.x),
          past_crossing(middle.y, mover.origin.y, mover.cell.y)};
}

bool LaneRoom::is_open(const GridMover& mover, CollisionBody body, IVec2 way) const {
  if (way == IVec2{0, 0}) return false;
  const Vec2 at = body.at, step(way * mover.cell);
  if (world.would_hit(body, step, rules)) return false;
  for (const Vec2 by : other_sides(edge, level, body.bounds().moved_by(step))) {
    if (by == Vec2{0, 0}) continue;
    body.at = at + by;
    if (world.would_hit(body, step, rules)) return false;
  }
  return true;
}

}  // namespace vole
