// Letters ready to be drawn, cut from a sheet or taken from a TrueType file.
//
// In NAME.sheet.toml, where each frame holds a letter, and a letter is as wide as its ink:
//
//   [font]
//   glyphs = ["ABCDEFGHIJKLM", "NOPQRSTUVWXYZ"]     # a text for each row of frames
//   gap = 1                                          # pixels between letters
//   space = 4                                        # width of a blank
//   kerning = { "AV" = -1 }                          # pixels more between these two
//
// In NAME.font.toml:
//
//   file = "hedgerow.ttf"                            # in the same folder; NAME.ttf when left out
//   size = 24                                        # pixels from line to line
//   antialias = false                                   # every pixel wholly or not at all
//   letters = "→★"                                   # besides those of the European languages
#pragma once

#include <cstdint>
#include <string_view>

#include "vole/asset/sheet.hpp"
#include "vole/base/utf8.hpp"

namespace vole {

struct Glyph {
  char32_t letter = 0;
  Frame frame;  // as high as a line; its offset may be negative where ink overhangs
  int advance = 0;
};

// Pixels more (or, below 0, fewer) between two letters that follow each other.
struct Kerning {
  std::uint64_t pair = 0;  // first letter * 2^32 + second
  int pixels = 0;
};
constexpr std::uint64_t kerning_pair(char32_t first, char32_t second) {
  return std::uint64_t{first} << 32 | second;
}

// What a font is made from.
struct FontParts {
  std::string name;
  std::vector<std::shared_ptr<const Picture>> pictures;  // that the glyphs' frames are parts of
  std::vector<Glyph> glyphs;                             // of a letter that is there twice the first counts
  std::vector<Kerning> kerning;
  int line_height = 0;
  int gap = 1;    // part of every advance, and not of a line's width
  int space = 4;  // width of a letter with nothing to show
};

class Font {
 public:
  explicit Font(FontParts parts);
  // From a sheet that has a font. Throws Error where its text names more letters than there are frames.
  explicit Font(std::shared_ptr<const Sheet> sheet);

  const std::string& name() const { return parts_.name; }
  int line_height() const { return parts_.line_height; }
  const std::vector<Glyph>& glyphs() const { return parts_.glyphs; }  // sorted by letter
  const std::vector<std::shared_ptr<const Picture>>& pictures() const { return parts_.pictures; }

  // A letter the font lacks is shown in the other case, else as '?'; nullptr for a letter with nothing to
  // show.
  const Glyph* glyph(char32_t letter) const;
  int advance(char32_t letter) const;
  // From the start of `letter` to the start of `next`; 0 for `next`: nothing follows.
  int step(char32_t letter, char32_t next) const;
  // Width and height in pixels; '\n' starts a new line.
  IVec2 measure(std::string_view text) const;
  int line_width(std::string_view line) const;

 private:
  const Glyph* find(char32_t letter) const;
  void order();

  FontParts parts_;
};

// How letters are taken from a TrueType or OpenType file.
struct TrueTypeCut {
  int size = 16;  // pixels from line to line
  bool antialias = true;
  std::string letters;  // besides those of the European languages (Latin, Greek, Cyrillic) that are there
};
// Throws Error at `place` when the bytes are not a font that can be used.
FontParts cut_truetype(const Bytes& bytes, const TrueTypeCut& cut, const FilePosition& where);

template <>
struct AssetType<Font> {
  static constexpr std::string_view word = "font";
  static constexpr std::string_view folder = "assets";
  static constexpr std::string_view ending = ".font.toml";
  static constexpr std::string_view plain_ending = ".sheet.toml";
  static Font load(Loading& loading);
  static std::shared_ptr<const Font> built_in(std::string_view name);
  static std::vector<std::string> built_in_names() { return {"plain"}; }
  static bool will_do(Catalog& catalog, std::string_view name);
  static std::string find_packed(Catalog& catalog, std::string_view name);
  static std::vector<std::string> packed_names(Catalog& catalog);
  static TomlValue schema();  // of its file: see schema.hpp
};

// A small font that is always there, the catalog's "plain" where the game has none of that name: letters of 5 x 7 pixels
// and two below the line, with a dark rim.
const Font& plain_font();

}  // namespace vole
