// Puts rectangles onto as few pages as they need, without overlap.
//
//   Packing packing = pack({{16, 16}, {24, 9}}, {1024, 1024});
//   packing.placed[1].at        // the second rectangle's corner, on page packing.placed[1].page
//
// The skyline of J. Jylänki, "A thousand ways to pack the bin", 2010, as stb_rect_pack builds it, tried at
// many widths. The result depends on the sizes and their order alone.
#pragma once

#include <vector>

#include "vole/base/vec.hpp"

namespace vole {

struct Packing {
  struct Placed {
    int page = 0;
    IVec2 at{0, 0};
  };
  std::vector<Placed> placed;  // of each rectangle, in the order given
  std::vector<IVec2> pages;    // the size of each: as small as it can be
};

// Rectangles without area take no room. Throws Error when one is larger than a page may be, or when
// more than 1024 pages would be needed.
Packing pack(const std::vector<IVec2>& sizes, IVec2 largest_page);

}  // namespace vole
