// What a thing's probes find.
#pragma once

#include "vole/level/categories.hpp"
#include "vole/scene/bodies/solid_things.hpp"
#include "vole/world/probes.hpp"

namespace vole {

// With the middle of its body where that counts.
ProbeStand stand_of(const CollisionWorld& bodies, Entity of, const Pose& pose);

// Both throw Error for a category that is not there.
bool finds_something(const CollisionWorld& bodies, const Categories& categories, const Probe& probe,
                     Entity of, const Pose& pose);
Entity first_found(const CollisionWorld& bodies, const Categories& categories, const Probe& probe, Entity of,
                   const Pose& pose, const SolidThings& things);

}  // namespace vole
