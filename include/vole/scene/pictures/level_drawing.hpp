// How a level's layer is drawn, whoever draws it.
#pragma once

#include "vole/draw/draw_list.hpp"
#include "vole/level/level.hpp"

namespace vole {

// Adds a layer's picture and tiles, as its look says. A picture lies where the level's edge comes to rest on the canvas.
// `frames`: what each tile of the level shows now.
void draw_level_layer(DrawList& list, LayerId id, const Level& level, const LevelLayer& layer,
                      const LayerLook& look, const TileGrid& tiles, const std::vector<Frame>& frames);
// As the level's file has it.
void draw_level_layer(DrawList& list, LayerId id, const Level& level, const LevelLayer& layer);

// All that is in a layer is shown by its look.
void shade(PictureItem& item, const LayerLook& look);

}  // namespace vole
