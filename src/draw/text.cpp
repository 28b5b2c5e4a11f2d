#include "vole/draw/text.hpp"

#include <algorithm>

namespace vole {

void draw_text(DrawList& list, LayerId layer, const Font& font, std::string_view text, Vec2 at,
               const TextStyle& style) {
  const auto scale = static_cast<float>(style.scale);
  const IVec2 whole = spot_in(style.anchor, font.measure(text));
  float y = at.y - static_cast<float>(whole.y) * scale;
  while (!text.empty()) {
    const std::string_view line = text.substr(0, text.find('\n'));
    text.remove_prefix(std::min(line.size() + 1, text.size()));
    float x = at.x - static_cast<float>(spot_in(style.anchor, font.measure(line)).x) * scale;
    for (std::string_view rest = line; !rest.empty();) {
      const char32_t letter = next_letter(rest);
      if (const Glyph* glyph = font.glyph(letter))
        list.add(layer, {.picture = &font.picture(),
                         .from = glyph->frame.area,
                         .alpha = glyph->frame.alpha,
                         .at = {x, y},
                         .scale = {scale, scale},
                         .tint = style.colour,
                         .depth = style.depth});
      x += static_cast<float>(font.advance(letter)) * scale;
    }
    y += static_cast<float>(font.line_height()) * scale;
  }
}

}  // namespace vole
