// What a camera goes along with.
#pragma once

#include <optional>
#include <vector>

#include "vole/world/world.hpp"

namespace vole {

// Of one thing, or of the box around several; nothing when none of them is there any more.
std::optional<CameraTarget> target_of(const World& world, const std::vector<Entity>& things);

}  // namespace vole
