// How large a lamp may be.
#pragma once

namespace vole {

inline constexpr int largest_lamp = 512;  // its radius, in pixels

}  // namespace vole
