// What a TOML file may be before the parser sees it: the parser goes one call deeper for each level of nesting, and a
// value takes some 400 bytes while it reads.
#pragma once

#include <string_view>

#include "vole/base/error.hpp"

namespace vole {

inline constexpr int most_toml_nesting = 32;      // lists and inline tables within each other
inline constexpr int most_toml_key_parts = 32;    // of a dotted key, as in [a.b.c]

// Throws Error at the first place that is beyond a limit. Tables that a dotted key makes, and points of numbers, are among the values.
void check_toml_limits(std::string_view text, const std::shared_ptr<const std::string>& file, int most_values);

}  // namespace vole
