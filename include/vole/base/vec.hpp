// Points and directions. Pixels, y pointing down, origin at the top left.
#pragma once

#include <glm/ext/vector_float2.hpp>
#include <glm/ext/vector_int2.hpp>

namespace vole {

using Vec2 = glm::vec2;
using IVec2 = glm::ivec2;
using Vec4 = glm::vec<4, float, glm::defaultp>;  // whole in vec4.hpp

// The compiler's own root, the same as std::sqrt: <cmath> would be a tenth of what including vole.hpp costs.
inline float length_of(Vec2 v) {
  return __builtin_sqrtf(v.x * v.x + v.y * v.y);
}
// The same way, cut down to a length of 1.
inline Vec2 at_most_one_long(Vec2 v) {
  const float length = length_of(v);
  return length > 1 ? v / length : v;
}

// As std::max and std::min, without <algorithm>, which is long.
template <class T>
constexpr T larger_of(T a, T b) {
  return a < b ? b : a;
}
template <class T>
constexpr T smaller_of(T a, T b) {
  return b < a ? b : a;
}

}  // namespace vole
