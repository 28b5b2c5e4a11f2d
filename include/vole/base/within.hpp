// What a setter does with a number that is out of its range, the same in all of Vole: it is brought to the nearest that is in it.
// What is not a number throws Error, since no number is nearest to it.
#pragma once

#include "vole/base/vec.hpp"

namespace vole {

float brought_within(float value, float least, float most);
// Each part of it.
Vec2 brought_within(Vec2 value, float least, float most);

}  // namespace vole
