// How a picture goes on beside itself, as a background does.
#pragma once

#include <array>
#include <cstdint>
#include <string_view>

namespace vole {

enum class Repeat : std::uint8_t { none, across, down, both };
constexpr auto enum_names(Repeat) {
  return std::array<std::string_view, 4>{"none", "across", "down", "both"};
}

}  // namespace vole
