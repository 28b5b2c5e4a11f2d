// What a setter does with a number that is out of its range, the same in all of Vole: it is brought to the nearest that is in it.
// What is not a number throws Error, since no number is nearest to it.
#pragma once

#include "vole/base/vec.hpp"

namespace vole {

float brought_within(float value, float least, float most);
Vec2 brought_within(Vec2 value, float least, float most);  // each part
Vec4 brought_within(Vec4 value, float least, float most);

// For durations that are given in seconds: some months.
inline constexpr float longest_seconds = 1e7f;
float brought_within_seconds(float seconds);
// For positions, and ways from one to another: as far as a pixel can be told from the next (physics/subpixel.hpp).
inline constexpr float furthest_position = 16777216;
Vec2 brought_within_reach(Vec2 position);

// The next whole number below and above, brought within -2^29 to 2^29: an int holds it, with room to count on from
// there. 0 for what is not a number. For places that come from a file or a saved state, such as the cell of a point.
int floor_to_int(float value);
int ceil_to_int(float value);
IVec2 floor_to_int(Vec2 value);  // each part

}  // namespace vole
