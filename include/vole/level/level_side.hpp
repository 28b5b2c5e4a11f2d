// The four sides of a level, at which pieces join it and it goes on.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>
#include <string_view>

namespace vole {

enum class LevelSide : std::uint8_t { left, right, top, bottom };
constexpr auto enum_names(LevelSide) {
  return std::array<std::string_view, 4>{"left", "right", "top", "bottom"};
}
constexpr bool is_across(LevelSide side) {
  return side == LevelSide::left || side == LevelSide::right;
}
constexpr bool is_forward(LevelSide side) {
  return side == LevelSide::right || side == LevelSide::bottom;
}
constexpr LevelSide opposite(LevelSide side) {
  constexpr std::array<LevelSide, 4> others{LevelSide::right, LevelSide::left, LevelSide::bottom,
                                            LevelSide::top};
  return others[static_cast<std::size_t>(side)];
}

}  // namespace vole
