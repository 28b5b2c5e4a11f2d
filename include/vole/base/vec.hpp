// Points and directions. Pixels, y pointing down, origin at the top left.
#pragma once

#include <glm/vec2.hpp>

namespace vole {

using Vec2 = glm::vec2;
using IVec2 = glm::ivec2;

}  // namespace vole
