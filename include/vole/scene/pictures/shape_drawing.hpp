// Lines and the outlines of shapes, of one pixel: for diagnostics, not for pictures of a game.
#pragma once

#include "vole/draw/draw_list.hpp"
#include "vole/physics/solid_grid.hpp"

namespace vole {

void draw_line(DrawList& list, LayerId layer, Vec2 from, Vec2 to, Colour colour);
void draw_shape(DrawList& list, LayerId layer, const Shape& shape, Vec2 at, Colour colour);
// What is solid of a cell, without the edges that its neighbours hide: side by side they show as one outline.
void draw_cell(DrawList& list, LayerId layer, const SolidGrid& grid, IVec2 cell, Colour colour);

}  // namespace vole
