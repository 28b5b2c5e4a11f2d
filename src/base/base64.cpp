#include "vole/base/base64.hpp"

#include <algorithm>
#include <cstdint>

namespace vole {
namespace {

constexpr std::string_view digits = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";

}  // namespace

std::string to_base64(const std::vector<unsigned char>& bytes) {
  std::string text;
  text.reserve((bytes.size() + 2) / 3 * 4);
  for (std::size_t at = 0; at < bytes.size(); at += 3) {
    const std::size_t count = std::min<std::size_t>(bytes.size() - at, 3);
    std::uint32_t group = 0;
    for (std::size_t i = 0; i < 3; ++i) group = group << 8 | (i < count ? bytes[at + i] : 0u);
    for (std::size_t i = 0; i < 4; ++i) text += i <= count ? digits[group >> (18 - 6 * i) & 63] : '=';
  }
  return text;
}

std::optional<std::vector<unsigned char>> from_base64(std::string_view text) {
  std::vector<unsigned char> bytes;
  bytes.reserve(text.size() / 4 * 3);
  if (text.size() % 4 != 0) return std::nullopt;
  for (std::size_t at = 0; at < text.size(); at += 4) {
    const bool is_last = at + 4 == text.size();
    const std::string_view group = text.substr(at, 4);
    const std::size_t filled = is_last ? std::min(group.find('='), group.size()) : group.size();
    std::uint32_t bits = 0;
    for (std::size_t i = 0; i < filled; ++i) {
      const std::size_t digit = digits.find(group[i]);
      if (digit == std::string_view::npos) return std::nullopt;
      bits |= static_cast<std::uint32_t>(digit) << (18 - 6 * i);
    }
    const bool ends_well =
        filled == 4 || (filled == 3 && group[3] == '=') || (filled == 2 && group.ends_with("=="));
    if (!ends_well) return std::nullopt;
    for (std::size_t i = 0; i + 1 < filled; ++i)
      bytes.push_back(static_cast<unsigned char>(bits >> (16 - 8 * i) & 0xff));
  }
  // What is left over of the last digit is nothing, so that each text is of one list of bytes.
  if (to_base64(bytes) != text) return std::nullopt;
  return bytes;
}

}  // namespace vole
