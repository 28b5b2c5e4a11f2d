// Points and directions. Pixels, y pointing down, origin at the top left.
#pragma once

#include <cmath>
#include <glm/ext/vector_float2.hpp>
#include <glm/ext/vector_float3.hpp>
#include <glm/ext/vector_float4.hpp>
#include <glm/ext/vector_int2.hpp>

namespace vole {

using Vec2 = glm::vec2;
using IVec2 = glm::ivec2;
using Vec3 = glm::vec3;
using Vec4 = glm::vec4;

inline float length_of(Vec2 v) {
  return std::sqrt(v.x * v.x + v.y * v.y);
}
// The same way, cut down to a length of 1.
inline Vec2 at_most_one_long(Vec2 v) {
  const float length = length_of(v);
  return length > 1 ? v / length : v;
}

}  // namespace vole
