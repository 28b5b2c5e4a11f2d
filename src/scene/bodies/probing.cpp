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
                               const Pose& pose) {
  const Vec2 from = Probe::placed(*probe.from, pose.at, pose.mirrored);
  return bodies.cast_ray(from, Probe::placed(*probe.to, pose.at, pose.mirrored) - from, asked);
}

}  // namespace

bool finds_something(const CollisionWorld& bodies, const Categories& categories, const Probe& probe,
                     Entity of, const Pose& pose) {
  const QueryFilter asked = asked_by(probe, categories, of);
  return probe.is_ray() ? ray_hit(bodies, probe, asked, pose).has_value()
                        : bodies.any(probe.box(pose.at, pose.mirrored), asked);
}

Entity first_found(const CollisionWorld& bodies, const Categories& categories, const Probe& probe, Entity of,
                   const Pose& pose, const SolidThings& things) {
  QueryFilter asked = asked_by(probe, categories, of);
  if (probe.is_ray()) {
    const auto hit = ray_hit(bodies, probe, asked, pose);
    return hit ? things.thing(hit->what.body) : Entity{};
  }
  asked.tiles = false;
  return things.thing(bodies.first(probe.box(pose.at, pose.mirrored), asked));
}

}  // namespace vole
