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

#include <cstdint>
#include <optional>
#include <string_view>
#include <vector>

#include "vole/asset/picture.hpp"
#include "vole/asset/tile_cell.hpp"
#include "vole/draw/blend.hpp"
#include "vole/draw/view.hpp"

namespace vole {

using LayerId = std::uint16_t;

// A frame of a picture, put on the canvas by its pivot. Nearest pixel, whatever the scale and rotation.
struct PictureItem {
  const Picture* picture = nullptr;  // must live until the list is drawn
  IRect from = {};
  Alpha alpha = Alpha::blended;  // of that part: Picture::alpha_of
  Vec2 at{0, 0};
  IVec2 pivot{0, 0};   // in pixels of the frame
  Vec2 scale{1, 1};    // 1/64 to 1024
  float rotation = 0;  // degrees clockwise round the pivot
  bool mirrored = false;
  bool upside_down = false;
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
  enum class Type : std::uint8_t { picture, fill, outline, tiles, lighting, blur };

  Type type = Type::picture;
  LayerId layer = 0;
  std::uint32_t order = 0;
  PictureItem picture;  // its `at` is whole and on the canvas; its tint colours fill and outline
  IRect box;            // of fill, outline and blur, on the canvas
  TilesItem tiles;
  const Lighting* lighting = nullptr;
  int blur = 0;  // pixels on each side that are mixed
  IRect clip;  // in pixels of its view
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
  // Layers that are added from now on are part of this view, and positions in it are in pixels of its own; until
  // end_view, from which on they are the canvas's again.
  void start_view(const View& view);
  void end_view();
  // A layer over the ones before. `corner`: the point of its world that lies on the top left of the canvas, or of the view.
  LayerId add_layer(IVec2 corner);
  // What is added from now on shows only inside this part of the canvas, or of its view.
  void clip_to(const IRect& part);
  void clip_to_canvas() { clip_.reset(); }
  // What clip_to was given last, to be given again later; none: the whole canvas.
  const std::optional<IRect>& clip() const { return clip_; }
  void set_clip(const std::optional<IRect>& clip) { clip_ = clip; }
  // Where what is added to this layer shows.
  IRect clip(LayerId layer) const;

  void add(LayerId layer, const PictureItem& item);
  void add(LayerId layer, const TilesItem& item);
  // Darkness and lamps (light.hpp) over all of the layer, and of those below; must live until the list is drawn.
  void add(LayerId layer, const Lighting& lighting);
  void fill(LayerId layer, const Rect& box, Colour colour, float depth = 0);
  // A frame of one pixel, inside the box.
  void outline(LayerId layer, const Rect& box, Colour colour, float depth = 0);

  // What is below the layer becomes a mixture of so many pixels on each side of each, within the box.
  void blur(LayerId layer, const IRect& box, int pixels);

  // By layer, then depth, then the order in which items were added; and finds the runs.
  void sort();

  IVec2 canvas() const { return canvas_; }
  // What is left of the canvas's size for a layer: that of its view.
  IVec2 size(LayerId layer) const { return view(layer).size; }
  const View& view(LayerId layer) const { return views_[layers_.at(layer).view]; }
  IVec2 corner(LayerId layer) const { return layers_.at(layer).corner; }
  std::size_t layers() const { return layers_.size(); }
  const std::vector<DrawItem>& items() const { return items_; }
  // What the sorted items come to: the fewer, the less work for a renderer.
  const std::vector<DrawRun>& runs() const { return runs_; }

 private:
  DrawItem& append(DrawItem::Type type, LayerId layer);
  IRect on_canvas(LayerId layer, const Rect& box) const;

  struct Layer {
    IVec2 corner{0, 0};
    std::size_t view = 0;
  };

  IVec2 canvas_{0, 0};
  std::optional<IRect> clip_;
  std::vector<View> views_;  // the first is the canvas
  std::size_t view_ = 0;
  std::vector<Layer> layers_;
  std::vector<DrawItem> items_;
  std::vector<DrawRun> runs_;
};

// The pixel a position falls on: the nearest, halves up. Positions that are far off or not finite are
// limited to 16 million.
int to_pixel(float position);

}  // namespace vole
