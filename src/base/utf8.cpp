#include "vole/base/utf8.hpp"

#include <cstddef>

namespace vole {

char32_t next_letter(std::string_view& text) {
  constexpr char32_t broken = U'\uFFFD';
  const auto byte = [&text](std::size_t i) { return static_cast<unsigned char>(text[i]); };
  const unsigned char first = byte(0);
  const std::size_t length = first < 0x80                    ? 1
                             : first >= 0xc2 && first < 0xe0 ? 2
                             : (first & 0xf0) == 0xe0        ? 3
                             : first >= 0xf0 && first < 0xf5 ? 4
                                                             : 0;
  if (length == 0 || length > text.size()) {
    text.remove_prefix(1);
    return broken;
  }
  char32_t letter = length == 1 ? first : first & (0x7fu >> length);
  for (std::size_t i = 1; i < length; ++i) {
    if ((byte(i) & 0xc0) != 0x80) {
      text.remove_prefix(1);
      return broken;
    }
    letter = letter << 6 | (byte(i) & 0x3f);
  }
  const char32_t least[] = {0, 0, 0x80, 0x800, 0x10000};
  const bool surrogate = letter >= 0xd800 && letter < 0xe000;
  text.remove_prefix(length);
  return letter < least[length] || surrogate || letter > 0x10ffff ? broken : letter;
}

bool is_utf8(std::string_view text) {
  constexpr std::string_view written_mark = "\xef\xbf\xbd";  // U+FFFD itself
  while (!text.empty()) {
    if (static_cast<unsigned char>(text.front()) < 0x80) {
      text.remove_prefix(1);
      continue;
    }
    const bool is_mark = text.starts_with(written_mark);
    if (next_letter(text) == U'\uFFFD' && !is_mark) return false;
  }
  return true;
}

}  // namespace vole
