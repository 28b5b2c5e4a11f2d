// How a level's layer is drawn, whoever draws it.
#pragma once

#include "vole/draw/draw_list.hpp"
#include "vole/level/level.hpp"

namespace vole {

// Adds a layer's picture and tiles. A picture lies where the level's edge comes to rest on the canvas.
void draw_level_layer(DrawList& list, LayerId id, const Level& level, const LevelLayer& layer,
                      const std::vector<std::uint16_t>& tiles);

}  // namespace vole
