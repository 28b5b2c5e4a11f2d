// The plain way in which what sequences say is shown.
#pragma once

#include "vole/draw/draw_list.hpp"
#include "vole/world/world.hpp"

namespace vole {

// Over each thing, within the canvas; what the scene says stands at the foot of the canvas.
void draw_said(DrawList& list, LayerId layer, const World& world, float share, int ticks_per_second);

}  // namespace vole
