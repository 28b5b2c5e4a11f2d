// The nine places of a box that a word can name.
#pragma once

#include <array>
#include <string_view>

#include "vole/base/vec.hpp"

namespace vole {

enum class Anchor { top_left, top, top_right, left, centre, right, bottom_left, bottom, bottom_right };

constexpr auto enum_names(Anchor) {
  return std::array<std::string_view, 9>{"top left", "top",         "top right", "left",        "centre",
                                         "right",    "bottom left", "bottom",    "bottom right"};
}

// Where the anchor lies in a box of this size, from the box's top left corner; halves are rounded down.
constexpr IVec2 spot_in(Anchor anchor, IVec2 size) {
  const int column = static_cast<int>(anchor) % 3;
  const int row = static_cast<int>(anchor) / 3;
  return {size.x * column / 2, size.y * row / 2};
}

}  // namespace vole
