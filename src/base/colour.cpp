#include "vole/base/colour.hpp"

#include <fmt/core.h>

#include <charconv>

namespace vole {

std::optional<Colour> parse_colour(std::string_view text) {
  if ((text.size() != 7 && text.size() != 9) || text[0] != '#') return std::nullopt;
  std::uint32_t value = 0;
  const char* end = text.data() + text.size();
  const auto parsed = std::from_chars(text.data() + 1, end, value, 16);
  if (parsed.ec != std::errc{} || parsed.ptr != end) return std::nullopt;
  if (text.size() == 7) value = value << 8 | 0xff;
  const auto byte = [value](int shift) { return static_cast<std::uint8_t>(value >> shift); };
  return Colour{byte(24), byte(16), byte(8), byte(0)};
}

std::string to_text(Colour colour) {
  const std::string rgb = fmt::format("#{:02x}{:02x}{:02x}", colour.r, colour.g, colour.b);
  return colour.a == 255 ? rgb : fmt::format("{}{:02x}", rgb, colour.a);
}

}  // namespace vole
