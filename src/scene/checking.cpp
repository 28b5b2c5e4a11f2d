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

}  // namespace

bool finds_something(const CollisionWorld& bodies, const Categories& categories, const Check& check,
                     Entity of, const Pose& pose) {
  return bodies.any(check.box(pose.at, pose.faces_left), asked_by(check, categories, of));
}

Entity first_found(const CollisionWorld& bodies, const Categories& categories, const Check& check, Entity of,
                   const Pose& pose, const SolidThings& things) {
  Asked asked = asked_by(check, categories, of);
  asked.tiles = false;
  return things.thing(bodies.first(check.box(pose.at, pose.faces_left), asked));
}

}  // namespace vole
