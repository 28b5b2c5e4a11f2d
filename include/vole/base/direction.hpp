// Eight ways to face, clockwise from the right.
#pragma once

#include <array>
#include <cstdint>
#include <string_view>

#include "vole/base/vec.hpp"

namespace vole {

enum class Direction : std::uint8_t { right, down_right, down, down_left, left, up_left, up, up_right };
constexpr auto enum_names(Direction) {
  return std::array<std::string_view, 8>{"right", "down right", "down", "down left",
                                         "left",  "up left",    "up",   "up right"};
}

// Of length 1, with y pointing down.
constexpr Vec2 unit_of(Direction direction) {
  constexpr float slant = 0.70710678f;
  constexpr std::array<Vec2, 8> units{Vec2{1, 0}, {slant, slant},   {0, 1},  {-slant, slant},
                                      {-1, 0},    {-slant, -slant}, {0, -1}, {slant, -slant}};
  return units[static_cast<std::size_t>(direction)];
}

// As in a mirror: left for right, and up and down as they are.
constexpr Direction mirrored(Direction direction) {
  return static_cast<Direction>((12 - static_cast<int>(direction)) % 8);
}

}  // namespace vole
