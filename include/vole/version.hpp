#pragma once

#include <string_view>

namespace vole {

inline constexpr std::string_view version = "0.1.0";

}  // namespace vole
