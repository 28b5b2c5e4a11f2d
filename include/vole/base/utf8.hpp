// Letters of a text in UTF-8.
#pragma once

#include <string_view>

namespace vole {

// Takes the next letter off a text, which must not be empty; broken bytes give U+FFFD, one at a time.
char32_t next_letter(std::string_view& text);
// Whether nothing in it is broken.
bool is_utf8(std::string_view text);

}  // namespace vole
