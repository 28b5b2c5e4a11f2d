// What a picture on the screen is made of: items in layers, collected again for each drawn frame and then
// drawn by a renderer (raster.hpp). Collecting changes nothing in the game.
//
//   list.start(canvas.size());
//   LayerId ground = list.add_layer(camera_corner);      // later layers lie over earlier ones
//   list.add(ground, {.picture = &picture, .from = frame.area, .alpha = frame.alpha, .at = position});
//   list.fill(hud, {{4, 4}, {60, 12}}, Colour{0, 0, 0, 128});
//   list.sort();
//
// Positions are in pixels of the world; a layer's corner (where its world meets the canvas's top left) is
// whole, and so is every position after rounding, so pixel art does not shimmer when the camera moves.
#pragma once

#include <array>
#include <cstdint>
#include <string_view>
#include <vector>

#include "vole/asset/picture.hpp"
#include "vole/asset/tile_cell.hpp"

namespace vole {

using LayerId = std::uint16_t;

// How an item goes onto what is below it: over it, as light added to it, or as a shade that it is multiplied
// by.
enum class Blend : std::uint8_t { over, add, multiply };
constexpr auto enum_names(Blend) {
  return std::array<std::string_view, 3>{"over", "add", "multiply"};
}

// A frame of a picture, put on the canvas by its pivot. Nearest pixel, whatever the scale and rotation.
struct PictureItem {
  const Picture* picture = nullptr;  // must live until the list is drawn
  IRect from = {};
  Alpha alpha = Alpha::blended;  // of that part: Picture::alpha_of
  Vec2 at{0, 0};
  IVec2 pivot{0, 0};   // in pixels of the frame
  Vec2 scale{1, 1};    // 1/64 to 1024
  float rotation = 0;  // degrees clockwise round the pivot
  bool flip_x = false;
  bool flip_y = false;
  Colour tint = white;
  float opacity = 1;
  Blend blend = Blend::over;
  Colour flash = clear;  // its shape in this one colour: alpha says how much, 255 wholly
  float depth = 0;       // within a layer: larger is nearer
};

// The item that shows a frame with its pivot on a position.
PictureItem show(const Frame& frame, Vec2 at);

// A grid of equal tiles, of which only what the canvas shows is looked at.
struct TilesItem {
  const TileGrid* cells = nullptr;  // of indices into frames; must live until the list is drawn, as these
  IVec2 tile_size{16, 16};
  const Frame* frames = nullptr;
  Colour tint = white;
  float opacity = 1;
};

struct Lighting;

struct DrawItem {
  enum class Type : std::uint8_t { picture, fill, outline, tiles, lighting };

  Type type = Type::picture;
  LayerId layer = 0;
  std::uint32_t order = 0;
  PictureItem picture;  // its `at` is whole and on the canvas; its tint colours fill and outline
  IRect box;            // of fill and outline, on the canvas
  TilesItem tiles;
  const Lighting* lighting = nullptr;
  IRect clip;
};

// Items next to each other that share layer, picture and blend, so that they can be drawn as one.
struct DrawRun {
  std::size_t first = 0;  // index of an item
  std::size_t count = 0;
};

class DrawList {
 public:
  // Empties the list for a canvas of this size; keeps its memory.
  void start(IVec2 canvas);
  // A layer over the ones before. `corner`: the point of its world that lies on the canvas's top left.
  LayerId add_layer(IVec2 corner);
  // What is added from now on shows only inside this part of the canvas.
  void clip_to(const IRect& part);
  void clip_to_canvas();
  const IRect& clip() const { return clip_; }

  void add(LayerId layer, const PictureItem& item);
  void add(LayerId layer, const TilesItem& item);
  // Darkness and lamps (light.hpp) over all of the layer, and of those below; must live until the list is drawn.
  void add(LayerId layer, const Lighting& lighting);
  void fill(LayerId layer, const Rect& box, Colour colour, float depth = 0);
  // A frame of one pixel, inside the box.
  void outline(LayerId layer, const Rect& box, Colour colour, float depth = 0);

  // By layer, then depth, then the order in which items were added; and finds the runs.
  void sort();

  IVec2 canvas() const { return canvas_; }
  IVec2 corner(LayerId layer) const { return corners_.at(layer); }
  std::size_t layers() const { return corners_.size(); }
  const std::vector<DrawItem>& items() const { return items_; }
  // What the sorted items come to: the fewer, the less work for a renderer.
  const std::vector<DrawRun>& runs() const { return runs_; }

 private:
  DrawItem& append(DrawItem::Type type, LayerId layer);
  IRect on_canvas(LayerId layer, const Rect& box) const;

  IVec2 canvas_{0, 0};
  IRect clip_;
  std::vector<IVec2> corners_;
  std::vector<DrawItem> items_;
  std::vector<DrawRun> runs_;
};

// The pixel a position falls on: the nearest, halves up. Positions that are far off or not finite are
// limited to 16 million.
int to_pixel(float position);

}  // namespace vole
