#include "vole/draw/text.hpp"

#include <algorithm>

#include "vole/asset/font.hpp"

namespace vole {
namespace {

Colour colour_at(const TextStyle& style, std::size_t byte) {
  Colour colour = style.colour;
  for (const ColourRun& run : style.runs) {
    if (run.start > byte) break;
    colour = run.colour;
  }
  return colour;
}

// Calls put(glyph, place of its line's top, byte of the text) for each letter that can be seen.
template <class Put>
void each_letter(const Font& font, std::string_view text, const TextStyle& style, const Put& put) {
  const char* const start = text.data();
  int y = -spot_in(style.anchor, measure_text(font, text, style.width)).y * style.scale;
  while (!text.empty()) {
    const std::string_view line = take_line(font, text, style.width);
    int x = -spot_in(style.anchor, {font.line_width(line), 0}).x * style.scale;
    for (std::string_view rest = line; !rest.empty();) {
      const auto byte = static_cast<std::size_t>(rest.data() - start);
      const char32_t letter = next_letter(rest);
      std::string_view after = rest;
      if (const Glyph* glyph = font.glyph(letter)) put(*glyph, IVec2{x, y}, byte);
      x += font.step(letter, after.empty() ? 0 : next_letter(after)) * style.scale;
    }
    y += font.line_height() * style.scale;
  }
}

// Calls add(item) for everything a text consists of: shadows below, then rims, then letters.
template <class Add>
void each_item(const Font& font, std::string_view text, Vec2 at, const TextStyle& style, const Add& add) {
  const Vec2 start{static_cast<float>(to_pixel(at.x)), static_cast<float>(to_pixel(at.y))};
  const auto item_at = [&](const Glyph& glyph, IVec2 place) {
    PictureItem item = show(glyph.frame, start + Vec2(place));
    item.scale = Vec2(static_cast<float>(style.scale));
    item.depth = style.depth;
    return item;
  };
  const auto shape_at = [&](const Glyph& glyph, IVec2 place, Colour colour) {
    PictureItem item = item_at(glyph, place);
    item.flash = {colour.r, colour.g, colour.b, 255};
    item.opacity = static_cast<float>(colour.a) / 255.0f;
    add(item);
  };
  if (style.shadow.a != 0)
    each_letter(font, text, style, [&](const Glyph& glyph, IVec2 place, std::size_t) {
      shape_at(glyph, place + style.shadow_by * style.scale, style.shadow);
    });
  if (style.outline.a != 0)
    each_letter(font, text, style, [&](const Glyph& glyph, IVec2 place, std::size_t) {
      for (int y = -1; y <= 1; ++y)
        for (int x = -1; x <= 1; ++x)
          if (x != 0 || y != 0) shape_at(glyph, place + IVec2{x, y} * style.scale, style.outline);
    });
  each_letter(font, text, style, [&](const Glyph& glyph, IVec2 place, std::size_t byte) {
    PictureItem item = item_at(glyph, place);
    item.tint = colour_at(style, byte);
    add(item);
  });
}

}  // namespace

TextRuns& TextRuns::add(std::string_view text, Colour colour) {
  runs_.push_back({text_.size(), colour});
  text_ += text;
  return *this;
}

std::span<const ColourRun> TextRuns::runs() const {
  return runs_;
}

std::string_view take_line(const Font& font, std::string_view& text, int width) {
  const std::string_view all = text;
  std::string_view rest = text.substr(0, text.find('\n'));
  const bool ended = rest.size() < all.size();
  const std::string_view line = rest;
  std::size_t break_at = 0;  // where the last word that fits has ended
  int so_far = 0;
  while (width > 0 && !rest.empty()) {
    const auto byte = static_cast<std::size_t>(rest.data() - line.data());
    const char32_t letter = next_letter(rest);
    if (letter == U' ') break_at = byte;
    const Glyph* const glyph = font.glyph(letter);
    const int ink =
        so_far +
        (glyph ? std::max(glyph->frame.size.x, glyph->frame.offset.x + glyph->frame.area.size.x) : 0);
    if (ink > width && byte > 0) {
      const std::size_t end = break_at > 0 ? break_at : byte;
      text.remove_prefix(end);
      while (break_at > 0 && !text.empty() && text[0] == ' ') text.remove_prefix(1);
      return line.substr(0, end);
    }
    std::string_view after = rest;
    so_far += font.step(letter, after.empty() ? 0 : next_letter(after));
  }
  text.remove_prefix(line.size() + (ended ? 1 : 0));
  return line;
}

IVec2 measure_text(const Font& font, std::string_view text, int width) {
  IVec2 size{0, 0};
  do {
    const std::string_view line = take_line(font, text, width);
    size = {std::max(size.x, font.line_width(line)), size.y + font.line_height()};
  } while (!text.empty());
  return size;
}

void draw_text(DrawList& list, LayerId layer, const Font& font, std::string_view text, Vec2 at,
               const TextStyle& style) {
  each_item(font, text, at, style, [&](const PictureItem& item) { list.add(layer, item); });
}

void lay_out_text(const Font& font, std::string_view text, const TextStyle& style,
                  std::vector<PictureItem>& items) {
  items.clear();
  each_item(font, text, {0, 0}, style, [&](const PictureItem& item) {
    if (item.picture) items.push_back(item);
  });
}

}  // namespace vole
