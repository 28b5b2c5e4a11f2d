// Chance with a seed: the same seed gives the same numbers on every platform.
//
//   Random chance{7};
//   int side = chance.below(6) + 1;
//
// Method: PCG-XSH-RR 64/32, M. E. O'Neill, "PCG: A Family of Simple Fast Space-Efficient Statistically Good
// Algorithms for Random Number Generation", 2014; bounded numbers after D. Lemire, "Fast Random Integer
// Generation in an Interval", 2019.
#pragma once

#include <cstdint>

namespace vole {

class Random {
 public:
  explicit Random(std::uint64_t seed = 0);

  // Any 32-bit number.
  std::uint32_t next();
  // A whole number in [0, count); count must not be 0.
  std::uint32_t below(std::uint32_t count);
  // A number in [from, to).
  float between(float from, float to);
  // True this share of the time (0 never, 1 always).
  bool chance(float share);

  std::uint64_t state() const { return state_; }

 private:
  std::uint64_t state_ = 0;
};

}  // namespace vole
