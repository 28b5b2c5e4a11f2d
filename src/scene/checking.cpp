#include "checking.hpp"

namespace vole {

bool finds_something(const CollisionWorld& bodies, const Categories& categories, const Check& check,
                     Entity of, const Pose& pose) {
  Asked asked;
  asked.except = of.index;
  if (!check.of.empty()) asked.categories = 0;
  for (const Located<std::string>& name : check.of)
    asked.categories |= CategoryMask{1} << categories.number(name.value, name.where);
  return bodies.any(check.box(pose.at, pose.faces_left), asked);
}

}  // namespace vole
