// What one camera shows, on a part of the canvas: drawn in pixels of its own, then enlarged or made smaller as a whole. So all that
// lies in it stays on one grid of pixels, whatever the zoom, and nothing in it moves against anything else.
//
//   list.start_view(camera.view(share));
//   LayerId ground = list.add_layer(camera.corner(parallax, share));
//   list.end_view();
#pragma once

#include "vole/asset/image.hpp"

namespace vole {

struct View {
  IRect part;          // of the canvas
  float zoom = 1;      // pixels of the canvas for one of its own
  IVec2 size{0, 0};    // its own pixels
  Vec2 skipped{0, 0};  // the share of its first column and row that lies outside of the part, in [0, 1)
  Colour sky = clear;  // behind everything in it

  // Nothing is to be enlarged: its pixels are the canvas's.
  bool is_plain() const { return zoom == 1 && skipped == Vec2{0, 0}; }
};

// The nearest pixel of the picture for each of the part, which may reach over the canvas's edge.
void put_view(const Image& picture, const View& view, Image& canvas);

}  // namespace vole
