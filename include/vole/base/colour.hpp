// Colours as the web writes them: #rrggbb or #rrggbbaa. Alpha is straight (not multiplied in), 255 is opaque.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

namespace vole {

struct Colour {
  std::uint8_t r = 0;
  std::uint8_t g = 0;
  std::uint8_t b = 0;
  std::uint8_t a = 255;

  friend bool operator==(const Colour&, const Colour&) = default;
};

inline constexpr Colour white{255, 255, 255, 255};
inline constexpr Colour clear{0, 0, 0, 0};

// a * b / 255, rounded to nearest.
constexpr std::uint8_t multiply(std::uint8_t a, std::uint8_t b) {
  const unsigned product = unsigned{a} * b + 128;
  return static_cast<std::uint8_t>((product + (product >> 8)) >> 8);
}

// With its alpha multiplied in.
constexpr Colour premultiplied(Colour colour) {
  return {multiply(colour.r, colour.a), multiply(colour.g, colour.a), multiply(colour.b, colour.a), colour.a};
}

// Nothing when the text is not #rrggbb or #rrggbbaa.
std::optional<Colour> parse_colour(std::string_view text);

// "#rrggbb", or "#rrggbbaa" when not opaque.
std::string to_text(Colour colour);

}  // namespace vole
