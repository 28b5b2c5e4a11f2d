// What marks mean by their colour: the same in the diagnostic drawing of a game (xray.hpp) and in all pictures of `vole preview`.
#pragma once

#include "vole/base/colour.hpp"

namespace vole::mark_colours {

inline constexpr Colour solid_tile{0xd9, 0x72, 0x4a, 0xff};
inline constexpr Colour one_way{0xed, 0xa6, 0x3f, 0xff};
inline constexpr Colour solid_body{0x7f, 0xb8, 0xb0, 0xff};
inline constexpr Colour touched{0xf7, 0xf3, 0xe3, 0xff};  // a body, by another or by what is solid
inline constexpr Colour sensor{0xb1, 0x89, 0xb4, 0xff};
inline constexpr Colour off{0x92, 0x92, 0xbe, 0xff};
inline constexpr Colour zone{0x6d, 0x8a, 0x3f, 0xff};
inline constexpr Colour path{0x7d, 0x9a, 0xdc, 0xff};
inline constexpr Colour probe_found{0xcd, 0xdc, 0x5a, 0xff};
inline constexpr Colour probe_nothing{0xb3, 0x48, 0x5a, 0xff};
inline constexpr Colour contact{0xff, 0xff, 0xff, 0xff};
inline constexpr Colour position{0xf2, 0x9e, 0xb8, 0xff};  // of a thing; the pivot of a frame
inline constexpr Colour lamp{0xff, 0xe0, 0x7a, 0xff};
inline constexpr Colour camera{0x9f, 0xc4, 0xe8, 0xff};

}  // namespace vole::mark_colours
