// How many tags a thing may have.
#pragma once

#include <cstddef>

namespace vole {

inline constexpr std::size_t most_tags = 32;

}  // namespace vole
