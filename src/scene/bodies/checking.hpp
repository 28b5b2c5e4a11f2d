// What a thing's checks find.
#pragma once

#include "vole/level/categories.hpp"
#include "vole/scene/bodies/solid_things.hpp"
#include "vole/world/checks.hpp"

namespace vole {

// Both throw Error for a category that is not there.
bool finds_something(const CollisionWorld& bodies, const Categories& categories, const Check& check,
                     Entity of, const Pose& pose);
Entity first_found(const CollisionWorld& bodies, const Categories& categories, const Check& check, Entity of,
                   const Pose& pose, const SolidThings& things);

}  // namespace vole
