// What is shown in place of a sheet that cannot be had: a crossed card with its name on it.
#include <algorithm>

#include "vole/asset/font.hpp"
#include "vole/base/utf8.hpp"

namespace vole {
namespace {

constexpr Colour cream{0xf7, 0xf3, 0xe3, 0xff}, madder{0xb3, 0x48, 0x5a, 0xff}, faint{0xe8, 0xdf, 0xc8, 0xff};
constexpr Colour ink{0x2b, 0x1d, 0x1a, 0xff};
constexpr int margin = 4;
constexpr std::size_t longest_name = 48;

void put_letter(const Frame& frame, IVec2 at, Image& image) {
  for (int y = 0; y < frame.area.size.y; ++y)
    for (int x = 0; x < frame.area.size.x; ++x) {
      const IVec2 to = at + frame.offset + IVec2{x, y};
      // The letters are light with a dark rim, which a light card does not need.
      const bool is_light = frame.picture->row(frame.area.top() + y)[frame.area.left() + x].r > 127;
      if (is_light && image.area().contains(to)) image.at(to.x, to.y) = ink;
    }
}

}  // namespace

Image missing_card(std::string_view name) {
  const Font& font = plain_font();
  const std::string_view text = name.substr(0, longest_name);
  const IVec2 size{std::max(font.measure(text).x + 2 * margin, 16), font.line_height() + 2 * margin};
  Image card(size, cream);
  for (int x = 0; x < size.x; ++x) {
    const int y = x * (size.y - 1) / (size.x - 1);
    card.at(x, y) = card.at(x, size.y - 1 - y) = faint;
  }
  for (int x = 0; x < size.x; ++x) card.at(x, 0) = card.at(x, size.y - 1) = madder;
  for (int y = 0; y < size.y; ++y) card.at(0, y) = card.at(size.x - 1, y) = madder;
  IVec2 pen{margin, margin};
  for (std::string_view rest = text; !rest.empty();) {
    const char32_t letter = next_letter(rest);
    if (const Glyph* glyph = font.glyph(letter)) put_letter(glyph->frame, pen, card);
    pen.x += font.advance(letter);
  }
  return card;
}

}  // namespace vole
