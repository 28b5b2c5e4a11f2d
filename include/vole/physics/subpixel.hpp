// The lattice on which bodies stand: 1/256 of a pixel. Collision is worked out in whole numbers on this
// lattice, so it is exact and the same on every machine, and a body that stands on a floor stands on it, not
// 0.0001 inside. A float holds every lattice point up to 65,536 pixels from the origin: 4,096 tiles of 16.
#pragma once

#include <cmath>
#include <cstdint>

#include "vole/base/rect.hpp"

namespace vole {

inline constexpr std::int64_t subpixels = 256;

// Where a float can hardly tell a pixel from the next. No position on the lattice is further from the origin.
inline constexpr double furthest_pixels = 16777216;

// The nearest lattice point, in subpixels; at most the furthest. What is not a number: 0.
inline std::int64_t to_subpixels(float pixels) {
  if (!(pixels > -furthest_pixels))
    return pixels != pixels ? 0 : static_cast<std::int64_t>(-furthest_pixels) * subpixels;
  if (pixels > furthest_pixels) return static_cast<std::int64_t>(furthest_pixels) * subpixels;
  return static_cast<std::int64_t>(std::floor(static_cast<double>(pixels) * subpixels + 0.5));
}

inline float to_pixels(std::int64_t units) {
  return static_cast<float>(static_cast<double>(units) / subpixels);
}

// The same point on the lattice.
inline Vec2 on_lattice(Vec2 point) {
  return {to_pixels(to_subpixels(point.x)), to_pixels(to_subpixels(point.y))};
}

}  // namespace vole
