#include "vole/base/within.hpp"

#include <algorithm>
#include <cmath>

#include "vole/base/error.hpp"

namespace vole {

float brought_within(float value, float least, float most) {
  if (std::isnan(value))
    throw Error(FilePosition{}, "a number is wanted here, and this is none (NaN)",
                "a division of 0 by 0 is the usual cause");
  return std::clamp(value, least, most);
}

}  // namespace vole
