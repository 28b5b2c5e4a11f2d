// Text in a font of the game, placed by any of its corners or middles.
//
//   draw_text(list, layer, font, "PRESS ENTER", {160, 90}, {.anchor = Anchor::centre, .shadow = soil});
//
// For text that shows a value and seldom changes see label.hpp.
#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/anchor.hpp"
#include "vole/draw/draw_list.hpp"

namespace vole {

class Font;

// From this byte of the text on, until the next run begins, letters have this colour.
struct ColourRun {
  std::size_t start = 0;
  Colour colour = white;
};

struct TextStyle {
  Anchor anchor = Anchor::top_left;  // which spot of the text lies on the position
  Colour colour = white;
  int scale = 1;  // whole, so that letters stay sharp
  float depth = 0;
  int width = 0;           // lines are broken between words to be at most so wide (before scaling); 0: not
  Colour outline = clear;  // a rim of one pixel round each letter
  Colour shadow = clear;
  IVec2 shadow_by{1, 1};
  std::span<const ColourRun> runs = {};  // sorted by start; must live until the text is drawn
};

// A text of several colours, put together piece by piece.
//
//   TextRuns text;
//   text.add("press ").add("Enter", gold).add(" to begin");
//   draw_text(list, layer, font, text.text(), at, {.runs = text.runs()});
class TextRuns {
 public:
  TextRuns& add(std::string_view text, Colour colour = white);
  const std::string& text() const { return text_; }
  std::span<const ColourRun> runs() const;

 private:
  std::string text_;
  std::vector<ColourRun> runs_;
};

// The first line of a text when lines may be at most `width` wide (0: as wide as they come), and takes it off
// the text together with the blanks or the line end that part it from the next. A word wider than a line is
// broken where it must be.
std::string_view take_line(const Font& font, std::string_view& text, int width);

// Width and height in pixels of a text broken into such lines.
IVec2 measure_text(const Font& font, std::string_view text, int width);

// Lines end with '\n' or where they are broken, and are set flush left, centred or right as the anchor says.
void draw_text(DrawList& list, LayerId layer, const Font& font, std::string_view text, Vec2 at,
               const TextStyle& style = {});

// The items a text consists of, for a text that stands at {0, 0}: in the order in which they are drawn.
void lay_out_text(const Font& font, std::string_view text, const TextStyle& style,
                  std::vector<PictureItem>& items);

}  // namespace vole
