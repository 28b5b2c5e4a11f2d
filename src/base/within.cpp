#include "vole/base/within.hpp"

#include <algorithm>
#include <cmath>

#include "vole/base/error.hpp"
#include "vole/base/vec4.hpp"

namespace vole {
namespace {

// A float holds both ends exactly.
int to_int(float whole) {
  constexpr float most = 1 << 29;
  return std::isnan(whole) ? 0 : static_cast<int>(std::clamp(whole, -most, most));
}

}  // namespace

float brought_within(float value, float least, float most) {
  if (std::isnan(value))
    throw Error(FilePosition{}, "a number is wanted here, and this is none (NaN)",
                "a division of 0 by 0 is the usual cause");
  return std::clamp(value, least, most);
}

Vec2 brought_within(Vec2 value, float least, float most) {
  return {brought_within(value.x, least, most), brought_within(value.y, least, most)};
}

Vec4 brought_within(Vec4 value, float least, float most) {
  return {brought_within(value.x, least, most), brought_within(value.y, least, most),
          brought_within(value.z, least, most), brought_within(value.w, least, most)};
}

float brought_within_seconds(float seconds) {
  return brought_within(seconds, 0, longest_seconds);
}

Vec2 brought_within_reach(Vec2 position) {
  return brought_within(position, -furthest_position, furthest_position);
}

int floor_to_int(float value) {
  return to_int(std::floor(value));
}
int ceil_to_int(float value) {
  return to_int(std::ceil(value));
}
IVec2 floor_to_int(Vec2 value) {
  return {floor_to_int(value.x), floor_to_int(value.y)};
}

}  // namespace vole
