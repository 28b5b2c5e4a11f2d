#include "probing.hpp"

namespace vole {
namespace {

QueryFilter asked_by(const Probe& probe, const Categories& categories, Entity of) {
  QueryFilter asked;
  asked.except = of.index;
  if (!probe.categories.empty()) asked.categories = 0;
  for (const Located<std::string>& name : probe.categories)
    asked.categories |= CategoryMask{1} << categories.number(name.value, name.where);
  return asked;
}

std::optional<CastHit> ray_hit(const CollisionWorld& bodies, const Probe& probe, const QueryFilter& asked,
                               const ProbeStand& stand) {
  const Vec2 from = Probe::placed(*probe.from, stand);
  return bodies.cast_ray(from, Probe::placed(*probe.to, stand) - from, asked);
}

}  // namespace

ProbeStand stand_of(const CollisionWorld& bodies, Entity of, const Pose& pose) {
  if (pose.facing != Direction::up && pose.facing != Direction::down)
    return {pose.at, pose.mirrored ? Direction::left : Direction::right, {0, 0}};
  if (!bodies.has(of.index)) return {pose.at, pose.facing, {0, 0}};
  const CollisionBody& body = bodies.body(of.index);
  const Rect bounds = body.bounds();
  return {pose.at, pose.facing, bounds.at + bounds.size * 0.5f - body.at};
}

bool finds_something(const CollisionWorld& bodies, const Categories& categories, const Probe& probe,
                     Entity of, const Pose& pose) {
  const QueryFilter asked = asked_by(probe, categories, of);
  const ProbeStand stand = stand_of(bodies, of, pose);
  return probe.is_ray() ? ray_hit(bodies, probe, asked, stand).has_value()
                        : bodies.any(probe.box(stand), asked);
}

Entity first_found(const CollisionWorld& bodies, const Categories& categories, const Probe& probe, Entity of,
                   const Pose& pose, const SolidThings& things) {
  QueryFilter asked = asked_by(probe, categories, of);
  const ProbeStand stand = stand_of(bodies, of, pose);
  if (probe.is_ray()) {
    const auto hit = ray_hit(bodies, probe, asked, stand);
    return hit ? things.thing(hit->what.body) : Entity{};
  }
  asked.tiles = false;
  return things.thing(bodies.first(probe.box(stand), asked));
}

}  // namespace vole
