// A font cut from a sheet: each frame holds a letter, and a letter is as wide as its ink. In NAME.sheet.toml:
//
//   [font]
//   glyphs = ["ABCDEFGHIJKLM", "NOPQRSTUVWXYZ"]     # a text for each row of frames
//   gap = 1                                          # pixels between letters
//   space = 4                                        # width of a blank
#pragma once

#include <string_view>

#include "vole/asset/sheet.hpp"
#include "vole/base/utf8.hpp"

namespace vole {

struct Glyph {
  char32_t letter = 0;
  Frame frame;  // without the empty columns at its sides
  int advance = 0;
};

class Font {
 public:
  explicit Font(std::shared_ptr<const Sheet> sheet);

  const Picture& picture() const { return *sheet_->picture; }
  int line_height() const { return sheet_->frame_size.y; }

  // A letter the font lacks is shown in the other case, else as '?'; nullptr for a letter with nothing to
  // show.
  const Glyph* glyph(char32_t letter) const;
  int advance(char32_t letter) const;
  // Width and height in pixels; '\n' starts a new line.
  IVec2 measure(std::string_view text) const;

 private:
  const Glyph* find(char32_t letter) const;

  std::shared_ptr<const Sheet> sheet_;
  std::vector<Glyph> glyphs_;  // sorted by letter
  int gap_ = 1;
  int space_ = 4;
};

template <>
struct AssetSort<Font> {
  static constexpr std::string_view word = "font";
  static constexpr std::string_view folder = "assets";
  static constexpr std::string_view ending = ".sheet.toml";
  static Font load(Loading& loading);
};

// A small font that is always there, for diagnostics: letters of 5 x 7 pixels with a dark rim.
const Font& plain_font();

}  // namespace vole
