// What the collision world calls a body, its use, and the categories of bodies.
#pragma once

#include <array>
#include <cstddef>
#include <cstdint>
#include <string_view>

namespace vole {

using BodyId = std::uint32_t;
inline constexpr BodyId no_body = 0xffffffffu;

// Categories are told apart by numbers below this; sets of them are bits.
inline constexpr std::size_t most_categories = 32;
using CategoryMask = std::uint32_t;
inline constexpr CategoryMask all_categories = ~CategoryMask{0};

// What one body consists of at most.
inline constexpr std::size_t most_body_shapes = 32;

// Holds what runs into it; only notices; or is as if it were not there.
enum class BodyUse : std::uint8_t { solid, sensor, off };
constexpr auto enum_names(BodyUse) {
  return std::array<std::string_view, 3>{"solid", "sensor", "off"};
}

}  // namespace vole
