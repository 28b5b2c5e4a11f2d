// What moves along a path, or was moved by the scene, and blocks others: it carries what stands on it, and pushes what is in
// its way.
#include <algorithm>
#include <cmath>
#include <tuple>

#include "../carrying.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/path_mover.hpp"

namespace vole {
namespace {

// The point after the next one, as its end says; the same one where the way is at its end.
void choose_next(PathMover& path) {
  const auto count = static_cast<std::uint32_t>(path.points.size());
  if (path.end == PathEnd::around) {
    path.next = (path.next + 1) % count;
    return;
  }
  const bool at_end = path.goes_back ? path.next == 0 : path.next + 1 == count;
  if (at_end && path.end == PathEnd::stay) return;
  if (at_end) path.goes_back = !path.goes_back;
  if (count > 1) path.next = path.goes_back ? path.next - 1 : path.next + 1;
}

// Where it is after so many seconds. At most once around: a path without length comes to an end.
Vec2 go_on(PathMover& path, Vec2 at, float seconds) {
  for (std::size_t points = 0; points <= path.points.size() && seconds > 0; ++points) {
    if (path.waits > 0) {
      const float waited = std::min(path.waits, seconds);
      path.waits -= waited;
      seconds -= waited;
      if (path.waits > 0) break;
    }
    const Vec2 way = path.start + path.points[path.next] - at;
    const float length = std::sqrt(way.x * way.x + way.y * way.y), reach = path.speed * seconds;
    if (length > reach) return at + way * (reach / length);
    at = path.start + path.points[path.next];
    if (path.speed > 0) seconds -= length / path.speed;
    if (path.path.value.empty() || path.next == 0 ||
        (path.end != PathEnd::around && path.next + 1 == path.points.size()))
      path.waits = path.pause;
    choose_next(path);
  }
  return at;
}

// Where something squeezed holds it, it waits.
void follow_path(Carrying& carrying, Tick& tick, Entity entity, PathMover& path, Pose& pose) {
  if (!path.begun) {
    path.start = pose.at;
    if (!path.path.value.empty()) take_path(path, entity, tick.world);
    path.begun = true;
  }
  if (!path.runs || path.points.empty()) return;
  path.next = std::min(path.next, static_cast<std::uint32_t>(path.points.size() - 1));
  const auto before = std::tuple(path.next, path.goes_back, path.waits);
  const Vec2 from = pose.at, to = go_on(path, from, tick.stage.seconds_per_tick());
  if (!tick.stage.solids().has(entity))
    pose.at = to;
  else if (!carrying.carry(entity, from, to))
    std::tie(path.next, path.goes_back, path.waits) = before;
}

}  // namespace

void move_platforms(Tick& tick) {
  Entities& entities = tick.world.entities;
  tick.stage.update_bodies();
  tick.scratch.squeezed.clear();
  Carrying carrying(tick);
  // Where the scene has put it since the poses were remembered.
  entities.visit<Body, Pose>([&](Entity entity, const Body&, const Pose& pose) {
    if (pose.at != pose.before && !entities.has<Motion>(entity) && !entities.removed(entity) &&
        !entities.has<PathMover>(entity) && tick.stage.solids().has(entity))
      carrying.carry(entity, pose.before, pose.at);
  });
  entities.visit<PathMover, Pose>([&](Entity entity, PathMover& path, Pose& pose) {
    if (!entities.removed(entity)) follow_path(carrying, tick, entity, path, pose);
  });
}

}  // namespace vole
