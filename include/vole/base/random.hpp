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
  // Any 64-bit number: two of 32, the first on top.
  std::uint64_t next_wide();
  // A whole number in [0, count); count must not be 0.
  std::uint32_t below(std::uint32_t count);
  // A number in [from, to).
  float within(float from, float to);
  // True this share of the time (0 never, 1 always).
  bool chance(float share);

  // All that decides what comes next; and one that goes on from there.
  std::uint64_t state() const { return state_; }
  static Random from_state(std::uint64_t state);

 private:
  std::uint64_t state_ = 0;
};

}  // namespace vole
