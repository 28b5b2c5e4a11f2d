// Points and directions. Pixels, y pointing down, origin at the top left.
#pragma once

#include <glm/vec2.hpp>
#include <glm/vec3.hpp>
#include <glm/vec4.hpp>

namespace vole {

using Vec2 = glm::vec2;
using IVec2 = glm::ivec2;
using Vec3 = glm::vec3;
using Vec4 = glm::vec4;

}  // namespace vole
