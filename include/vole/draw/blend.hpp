// How what is drawn goes onto what is there.
#pragma once

#include <array>
#include <cstdint>
#include <string_view>

namespace vole {

// How an item goes onto what is below it: over it, as light added to it, or as a shade that it is multiplied
// by.
enum class Blend : std::uint8_t { over, add, multiply };
constexpr auto enum_names(Blend) {
  return std::array<std::string_view, 3>{"over", "add", "multiply"};
}

}  // namespace vole
