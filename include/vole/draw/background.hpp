// Pictures behind everything: repeated sideways or both ways without end, or scaled to cover the canvas.
#pragma once

#include "vole/asset/repeat.hpp"
#include "vole/draw/draw_list.hpp"

namespace vole {

// A copy of the frame has its top left on `at`; only the copies that the canvas shows are added.
void draw_repeated(DrawList& list, LayerId layer, const Frame& frame, Vec2 at, Repeat repeat,
                   const PictureItem& style = {});

// Scaled alike in both directions, as little as covers the whole canvas, whatever the layer's corner;
// centred.
void draw_covering(DrawList& list, LayerId layer, const Frame& frame, const PictureItem& style = {});

}  // namespace vole
