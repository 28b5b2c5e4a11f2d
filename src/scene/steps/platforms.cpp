// What moves along a path, or was moved by the scene, and blocks others: it carries what stands on it, and pushes what is in
// its way.
#include <algorithm>
#include <tuple>
#include <utility>

#include "scene/bodies/carrying.hpp"
#include "scene/movers/path_motion.hpp"
#include "vole/world/along_path.hpp"
#include "vole/world/motion.hpp"

namespace vole {
namespace {

// Where something squeezed holds it, it waits.
void follow_path(Carrying& carrying, Tick& tick, Entity entity, AlongPath& path, Pose& pose) {
  if (!path.begun) {
    path.start = pose.at;
    if (!path.path.value.empty()) take_path(path, entity, tick.world);
    path.begun = true;
  }
  if (!path.runs || path.points.empty()) return;
  path.next = std::min(path.next, static_cast<std::uint32_t>(path.points.size() - 1));
  const auto progress = [](auto& its) {
    return std::tie(its.next, its.goes_back, its.waiting, its.left_at, its.left_for, its.since_left);
  };
  const std::tuple<std::uint32_t, bool, float, Vec2, std::uint32_t, float> before = progress(path);
  const Vec2 from = pose.at, to = along_path(path, from, tick.stage.seconds_per_tick());
  if (!tick.stage.solids().has(entity))
    pose.at = to;
  else if (!carrying.carry(entity, from, to))
    progress(path) = before;
}

}  // namespace

void move_platforms(Tick& tick) {
  Entities& entities = tick.world.entities;
  tick.know_bodies();
  tick.memory.squeezed.clear();
  Carrying carrying(tick);
  // Where the scene has put it since the poses were remembered.
  entities.visit<Body, Pose>([&](Entity entity, const Body&, const Pose& pose) {
    if (pose.at != pose.before && tick.goes_on(entity) && !entities.has<Motion>(entity) &&
        !entities.removed(entity) && !entities.has<AlongPath>(entity) && tick.stage.solids().has(entity))
      carrying.carry(entity, pose.before, pose.at);
  });
  entities.visit<AlongPath, Pose>([&](Entity entity, AlongPath& path, Pose& pose) {
    if (!entities.removed(entity) && tick.goes_on(entity)) follow_path(carrying, tick, entity, path, pose);
  });
}

}  // namespace vole
