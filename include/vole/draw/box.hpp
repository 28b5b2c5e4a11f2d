// A frame of any size made of a small picture: its corners stay as they are, its sides are repeated or
// stretched, and its middle fills the rest. Also called a nine-slice. The sheet says how wide its borders
// are:
//
//   borders = { left = 4, top = 4, right = 4, bottom = 4, stretch = false }
#pragma once

#include "vole/draw/draw_list.hpp"

namespace vole {

class Sheet;

struct BoxStyle {
  int frame = 0;  // of the sheet
  Colour tint = white;
  float opacity = 1;
  float depth = 0;
};

// Fills the box to the pixel. A box smaller than its borders shows the outer part of each.
void draw_box(DrawList& list, LayerId layer, const Sheet& sheet, const Rect& box, const BoxStyle& style = {});

}  // namespace vole
