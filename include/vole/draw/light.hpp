// Darkness over what is drawn so far, and lamps in it: light in a few steps, mixed by a pattern of 4 x 4 pixels, as pixel art has
// it. All that a pixel gets, of the dark and of each lamp that reaches it, is added up, and the pixel multiplied by it.
//
//   Lighting lighting;
//   lighting.dark = {40, 44, 80, 255};                       // what is left where no lamp shines
//   LampItem lamp{.at = {60, 40}, .glow = {.radius = 48, .colour = {255, 217, 138, 255}}};
//   light_up(lamp, area.corners(), lighting);                // as far as walls let it: see lit_area.hpp
//   list.add(layer, lighting);                               // over all that the layer has
//
// The pattern is that of B. Bayer, "An Optimum Method for Two-Level Rendition of Continuous-Tone Pictures", 1973. It lies fast on
// each lamp and area, so that it does not swim when the camera moves.
#pragma once

#include <cstdint>
#include <span>
#include <vector>

#include "vole/asset/picture.hpp"
#include "vole/base/rect.hpp"
#include "vole/draw/lamp_size.hpp"
#include "vole/draw/lit_area.hpp"

namespace vole {

// How a lamp shines where nothing is in the way.
struct LampGlow {
  int radius = 48;  // pixels; 0: not at all
  Colour colour = white;
  int falloff = 1;  // 0: the same up to its radius; 1: evenly less; 2, 3, 4: soon much less
  int steps = 4;    // of brightness; 0: as many as there are
  bool dithered = true;

  friend bool operator==(const LampGlow&, const LampGlow&) = default;
};

struct LampItem {
  IVec2 at{0, 0};  // the pixel of the canvas that is brightest
  LampGlow glow;
  bool bounded = false;  // what it lights is an area of the lighting, else all within its radius
  std::size_t first = 0, corners = 0;
};

// A part that is as dark as it is, in place of what is around it.
struct DarkArea {
  Rect box;                            // on the canvas
  std::size_t first = 0, corners = 0;  // of a polygon; 0: the box
  Colour dark = white;
  int fade = 0;  // pixels inside the border of a box over which it gets so dark
};

struct Lighting {
  Colour dark = white;  // white: as bright as day
  int steps = 4;        // of fading
  bool dithered = true;
  std::vector<DarkArea> areas;  // later ones lie over earlier ones
  std::vector<LampItem> lamps;
  std::vector<LightCorner> corners;  // of areas, on the canvas

  // Keeps its memory.
  void clear();
};

// Adds a lamp, with what of its surroundings it lights: a polygon, from the middle of the lamp's pixel.
void light_up(const LampItem& lamp, std::span<const LightCorner> area, Lighting& lighting);

// How bright a lamp is at so many pixels from its middle: 0 to 255.
std::uint8_t brightness(const LampGlow& glow, IVec2 off);

// The pattern: 0 to 15.
constexpr int dither_at(int x, int y) {
  constexpr std::uint8_t pattern[4][4] = {{0, 8, 2, 10}, {12, 4, 14, 6}, {3, 11, 1, 9}, {15, 7, 13, 5}};
  return pattern[y & 3][x & 3];
}

// Draws lighting, and keeps what lamps look like.
class LightRaster {
 public:
  void draw(const Lighting& lighting, const IRect& clip, Image& canvas);

 private:
  struct Glow {
    LampGlow of;
    std::vector<Colour> pixels;  // a square, row by row
    std::vector<int> halves;     // how far to each side it shines, by rows from its middle
    std::uint64_t used = 0;
  };
  // The first pixel right of where a border crosses a row of them.
  using Crossings = std::vector<std::vector<int>>;
  struct Lamp {
    const LampItem* item = nullptr;
    std::size_t glow = 0;
    IRect box;                  // on the canvas
    std::size_t crossings = 0;  // of its first row
  };

  std::size_t glow_of(const LampGlow& glow);
  void forget_glows();
  void find_crossings(const Lighting& lighting, std::size_t first, std::size_t corners, int top, int bottom,
                      std::size_t into);
  void find_borders(const Lighting& lighting, const IRect& clip);
  void darken(const Lighting& lighting, int y, Colour* row, const IRect& clip);
  void add_lamp(const Lamp& lamp, int y, Colour* row, const IRect& clip);

  std::vector<Glow> glows_;
  std::size_t glow_pixels_ = 0;
  std::vector<Lamp> lamps_;
  std::vector<std::size_t> areas_;  // their crossings
  Crossings crossings_;
  std::vector<Colour> rows_, dark_row_;
  std::uint64_t times_ = 0;
};

}  // namespace vole
