// Numbers in texts, read the same on every system and in every language it speaks.
#pragma once

#include <optional>
#include <string_view>

namespace vole {

// A decimal number like "-0.5" or "1e3", and nothing around it; nothing when it is not one, or is too large.
std::optional<float> parse_float(std::string_view text);

}  // namespace vole
