// Bytes as text, by RFC 4648.
#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace vole {

std::string to_base64(const std::vector<unsigned char>& bytes);
// Nothing where the text is not what to_base64 makes.
std::optional<std::vector<unsigned char>> from_base64(std::string_view text);

}  // namespace vole
