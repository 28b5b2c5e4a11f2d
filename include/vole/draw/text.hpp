// Text in a font of the game, placed by any of its corners or middles.
#pragma once

#include <string_view>

#include "vole/asset/font.hpp"
#include "vole/base/anchor.hpp"
#include "vole/draw/draw_list.hpp"

namespace vole {

struct TextStyle {
  Anchor anchor = Anchor::top_left;  // which spot of the text lies on the position
  Colour colour = white;
  int scale = 1;  // whole, so that letters stay sharp
  float depth = 0;
};

// Lines end with '\n' and are set flush left, centred or right as the anchor says.
void draw_text(DrawList& list, LayerId layer, const Font& font, std::string_view text, Vec2 at,
               const TextStyle& style = {});

}  // namespace vole
