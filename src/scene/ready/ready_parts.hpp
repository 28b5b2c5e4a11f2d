// What ready scenes share: the controls that work them, whatever the game's own are, and their plain look.
#pragma once

#include <algorithm>
#include <array>
#include <span>
#include <string_view>

#include "vole/base/colour.hpp"

namespace vole::ready {

inline constexpr std::array<std::string_view, 3> up{"key ArrowUp", "pad up", "pad stick left up"};
inline constexpr std::array<std::string_view, 3> down{"key ArrowDown", "pad down", "pad stick left down"};
inline constexpr std::array<std::string_view, 3> left{"key ArrowLeft", "pad left", "pad stick left left"};
inline constexpr std::array<std::string_view, 3> right{"key ArrowRight", "pad right", "pad stick left right"};
inline constexpr std::array<std::string_view, 5> yes{"key Enter", "key Space", "pad south", "pad start",
                                                     "touch tap"};
inline constexpr std::array<std::string_view, 2> back{"key Escape", "pad east"};

inline bool is_one_of(std::string_view control, std::span<const std::string_view> names) {
  return std::find(names.begin(), names.end(), control) != names.end();
}

inline constexpr Colour ink{0xf7, 0xf3, 0xe3, 0xff}, faint{0x8d, 0x93, 0xa6, 0xff},
    mark{0xed, 0xa6, 0x3f, 0xff}, ground{0x1b, 0x1a, 0x26, 0xff};

}  // namespace vole::ready
