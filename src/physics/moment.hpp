// A moment of a motion as a fraction of whole numbers, so that two of them can be compared without rounding.
#pragma once

#include <cstdint>

namespace vole {

__extension__ typedef __int128 Wide;  // the product of any two int64

struct Moment {
  std::int64_t top = 0;
  std::int64_t bottom = 1;  // above 0

  friend bool operator<(const Moment& a, const Moment& b) {
    return static_cast<Wide>(a.top) * b.bottom < static_cast<Wide>(b.top) * a.bottom;
  }
  friend bool operator<=(const Moment& a, const Moment& b) { return !(b < a); }
  // What is touched at the very end of the motion is not entered.
  bool within_motion() const { return top < bottom; }
  double share() const { return static_cast<double>(top) / static_cast<double>(bottom); }
  // So much of a distance, rounded down.
  std::int64_t of(std::int64_t distance) const {
    const Wide product = static_cast<Wide>(distance) * top;
    const Wide quotient = product / bottom;
    return static_cast<std::int64_t>(quotient - (product % bottom < 0 ? 1 : 0));
  }
};

}  // namespace vole
