// Walks in every direction, seen from above: no gravity, no jump. In kinds.toml:
//
//   top_mover = { speed = 70, directions = "four" }
#pragma once

#include <array>
#include <cstdint>
#include <string_view>

#include "vole/base/describe.hpp"

namespace vole {

// The directions in which a thing can walk. With four, the further pushed of two axes decides; where both are pushed
// alike, it goes on along the one it was on.
enum class WalkDirections : std::uint8_t { free, four, eight };
constexpr auto enum_names(WalkDirections) {
  return std::array<std::string_view, 3>{"free", "four", "eight"};
}

struct TopMover {
  float speed = 70;           // pixels a second, the same in every direction
  float acceleration = 700;   // pixels a second, each second
  float deceleration = 1000;  // when letting go or turning
  WalkDirections directions = WalkDirections::free;
  float slip = 0;  // pixels by which it gets around a corner in its way

  bool goes_across = true;  // with four ways: along x
};
template <class V>
void describe(V& v, TopMover& mover) {
  v("speed", mover.speed, within(0, 100000));
  v("acceleration", mover.acceleration, within(0, 1e6));
  v("deceleration", mover.deceleration, within(0, 1e6));
  v("directions", mover.directions);
  v("slip", mover.slip, within(0, 64));
  v.state("goes_across", mover.goes_across);
}

}  // namespace vole
