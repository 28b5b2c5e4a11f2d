// What a thing's checks find.
#pragma once

#include "vole/level/categories.hpp"
#include "vole/physics/collision_world.hpp"
#include "vole/world/checks.hpp"
#include "vole/world/pose.hpp"

namespace vole {

// Throws Error for a category that is not there.
bool finds_something(const CollisionWorld& bodies, const Categories& categories, const Check& check,
                     Entity of, const Pose& pose);

}  // namespace vole
