// The software renderer: draws a list into an image, the same pixels on every machine.
//
//   Image canvas({320, 180});
//   Raster raster;
//   canvas.fill(sky);
//   raster.draw(list, canvas);
//
// Blending is the "over" of T. Porter, T. Duff, "Compositing Digital Images", 1984, on premultiplied colours
// of 8 bits with correct rounding.
#pragma once

#include <span>
#include <vector>

#include "vole/asset/image.hpp"
#include "vole/draw/draw_list.hpp"
#include "vole/draw/light.hpp"

namespace vole {

class Raster {
 public:
  // The canvas must be opaque; it stays so.
  void draw(const DrawList& list, Image& canvas);

 private:
  void draw_run(const DrawList& list, std::span<const DrawItem> items, Image& canvas);
  Image& picture_for(const View& view, Image& canvas);
  void finish_view(Image& canvas);
  // A tile whose rows of pixels are copied as they are.
  struct CopiedTile {
    const Colour* pixels = nullptr;
    std::size_t stride = 0;  // from row to row of its picture
    int left = 0;            // on the canvas
  };
  void draw_tiles(const TilesItem& grid, const IRect& clip, IVec2 corner, Image& canvas);
  void copy_tiles(int width, int top, int first, int end, Image& canvas);

  std::vector<Colour> row_;  // of a scaled picture
  std::vector<CopiedTile> copied_tiles_;
  LightRaster light_;
  Image blurred_;  // memory
  // The view that is being drawn, in a picture of its own.
  const View* view_ = nullptr;
  Image view_picture_;
};

// What a picture's pixels map to: fixed point with 16 bits below the point. The pixel (x, y) of the canvas
// shows the frame's pixel (floor(u), floor(v)), u = start_u + x * across_u + y * down_u, and likewise v.
// Public so that another renderer can show the same pixels.
struct PixelMap {
  std::int64_t start_u = 0, across_u = 0, down_u = 0;
  std::int64_t start_v = 0, across_v = 0, down_v = 0;
};
PixelMap pixel_map(const PictureItem& item);

// Premultiplied colour that multiplies each pixel of an item: its tint and opacity.
Colour multiplier_of(const PictureItem& item);

}  // namespace vole
