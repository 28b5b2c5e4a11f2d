// A page to show things on, and what all previews draw alike.
#pragma once

#include <deque>
#include <string>

#include "vole/asset/font.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/draw/draw_list.hpp"
#include "vole/draw/text.hpp"
#include "vole/physics/shape.hpp"

namespace paper {

using vole::Colour;
using vole::DrawList;
using vole::Image;
using vole::IVec2;
using vole::LayerId;
using vole::Vec2;

inline constexpr IVec2 page_size{1280, 800};
inline constexpr int margin = 24;
inline constexpr Colour ground{0x2d, 0x2b, 0x45, 0xff};
inline constexpr Colour light_square{0x4a, 0x4a, 0x6a, 0xff};
inline constexpr Colour dark_square{0x3b, 0x3a, 0x57, 0xff};
inline constexpr Colour ink{0xf7, 0xf3, 0xe3, 0xff};
inline constexpr Colour faint{0x8d, 0x93, 0xa6, 0xff};
inline constexpr Colour mark{0xed, 0xa6, 0x3f, 0xff};     // what is to be seen first
inline constexpr Colour missing{0xb3, 0x48, 0x5a, 0xff};  // what is not there

// What the colours of a picture mean.
using Legend = std::vector<std::pair<std::string_view, Colour>>;
// The picture with the legend in lines below it.
Image with_legend(const Image& picture, const Legend& legend);

// Writes what a preview shows, so that the next one may replace it.
void save_preview(const std::string& path, const Image& image);

class Page {
 public:
  explicit Page(IVec2 size = page_size);

  void text(IVec2 at, std::string_view text, Colour colour = ink);
  void text(IVec2 at, std::string_view text, const vole::TextStyle& style);
  void text(const vole::Font& font, IVec2 at, std::string_view text, const vole::TextStyle& style);
  void legend(IVec2 at, const Legend& legend);
  void fill(const vole::IRect& box, Colour colour);
  void outline(const vole::IRect& box, Colour colour);
  void cross(IVec2 at, int arm, Colour colour);
  // Its outline, enlarged, two pixels wide.
  void shape(const vole::Shape& shape, IVec2 at, int scale, Colour colour);
  // What lies behind pictures, so that one sees where they are clear.
  void squares(const vole::IRect& box, int size);
  void picture(const vole::Picture& picture, IVec2 at, float scale);
  // The whole frame with its top left here, its cut-away borders included.
  void frame(const vole::Frame& frame, IVec2 at, int scale);
  // The frame with its pivot here, changed as tracks have it.
  void posed(const vole::Frame& frame, IVec2 at, int scale, const vole::TrackPose& pose);
  // A box of this size, enlarged.
  void box(const vole::Sheet& sheet, IVec2 at, IVec2 size, int scale);

  // What has been drawn; after that the page is used up.
  const Image& finish();
  void save(const std::string& path);

 private:
  Image image_;
  DrawList list_;
  LayerId layer_ = 0;
  std::deque<vole::Picture> pictures_;  // made for this page
};

// Cells laid out in rows, one after the other.
class Flow {
 public:
  Flow(IVec2 start, int right, IVec2 step) : at_(start), left_(start.x), right_(right), step_(step) {}
  IVec2 next() { return next(step_.x); }
  // One of another width.
  IVec2 next(int width);
  int bottom() const { return at_.y + step_.y; }

 private:
  IVec2 at_;
  int left_, right_;
  IVec2 step_;
};

// The largest whole scale at which `count` cells (with `extra` pixels of room each) fit into the width and
// height.
int fitting_scale(IVec2 cell, int count, IVec2 room, IVec2 extra);

// Of each point its own colour, in the order of the sheet.
Colour point_mark(std::size_t index);
// A frame with its pivot and points.
void draw_frame(Page& page, const vole::Sheet& sheet, int index, IVec2 at, int scale,
                const vole::Clip* clip = nullptr);
// What the coloured crosses mean.
void draw_key(Page& page, const vole::Sheet& sheet, IVec2 at);
// "run (12 fps, 3 times)"
std::string clip_line(const vole::Clip& clip);

}  // namespace paper
