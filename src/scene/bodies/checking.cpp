#include "checking.hpp"

namespace vole {
namespace {

Asked asked_by(const Check& check, const Categories& categories, Entity of) {
  Asked asked;
  asked.except = of.index;
  if (!check.of.empty()) asked.categories = 0;
  for (const Located<std::string>& name : check.of)
    asked.categories |= CategoryMask{1} << categories.number(name.value, name.where);
  return asked;
}

std::optional<CastHit> ray_hit(const CollisionWorld& bodies, const Check& check, const Asked& asked,
                               const Pose& pose) {
  const Vec2 from = Check::placed(*check.from, pose.at, pose.faces_left);
  return bodies.cast_ray(from, Check::placed(*check.to, pose.at, pose.faces_left) - from, asked);
}

}  // namespace

bool finds_something(const CollisionWorld& bodies, const Categories& categories, const Check& check,
                     Entity of, const Pose& pose) {
  const Asked asked = asked_by(check, categories, of);
  return check.is_ray() ? ray_hit(bodies, check, asked, pose).has_value()
                        : bodies.any(check.box(pose.at, pose.faces_left), asked);
}

Entity first_found(const CollisionWorld& bodies, const Categories& categories, const Check& check, Entity of,
                   const Pose& pose, const SolidThings& things) {
  Asked asked = asked_by(check, categories, of);
  if (check.is_ray()) {
    const auto hit = ray_hit(bodies, check, asked, pose);
    return hit ? things.thing(hit->what.body) : Entity{};
  }
  asked.tiles = false;
  return things.thing(bodies.first(check.box(pose.at, pose.faces_left), asked));
}

}  // namespace vole
