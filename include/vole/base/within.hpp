// What a setter does with a number that is out of its range, the same in all of Vole: it is brought to the nearest that is in it.
// What is not a number throws Error, since no number is nearest to it.
#pragma once

namespace vole {

float brought_within(float value, float least, float most);

}  // namespace vole
