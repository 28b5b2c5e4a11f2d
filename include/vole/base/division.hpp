// Division of whole numbers that rounds down or up, also below zero, where C++ rounds towards it. The divisor
// must not be 0.
#pragma once

#include <cstdint>

namespace vole {

constexpr std::int64_t floor_divide(std::int64_t a, std::int64_t b) {
  return a / b - (a % b != 0 && (a < 0) != (b < 0) ? 1 : 0);
}

constexpr std::int64_t ceil_divide(std::int64_t a, std::int64_t b) {
  return a / b + (a % b != 0 && (a < 0) == (b < 0) ? 1 : 0);
}

}  // namespace vole
