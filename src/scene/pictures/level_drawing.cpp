#include "vole/scene/pictures/level_drawing.hpp"

#include <algorithm>

#include "vole/draw/background.hpp"

namespace vole {

void shade(PictureItem& item, const LayerLook& look) {
  const Colour tint = look.tint;
  item.tint = {multiply(item.tint.r, tint.r), multiply(item.tint.g, tint.g), multiply(item.tint.b, tint.b),
               multiply(item.tint.a, tint.a)};
  item.opacity *= look.opacity;
}

void draw_level_layer(DrawList& list, LayerId id, const Level& level, const LevelLayer& layer) {
  draw_level_layer(list, id, level, layer, layer.look, layer.tiles, level.tiles.frames());
}

void draw_level_layer(DrawList& list, LayerId id, const Level& level, const LevelLayer& layer,
                      const LayerLook& look, const TileGrid& tiles, const std::vector<Frame>& frames) {
  if (!look.visible) return;
  constexpr float behind_all = -1e9f;
  const int canvas_height = list.view(id).part.size.y;
  PictureItem style{.depth = behind_all};
  shade(style, look);
  if (layer.picture && layer.cover) {
    draw_covering(list, id, layer.frame, style);
  } else if (layer.picture) {
    const auto rest = static_cast<float>(std::max(level.size().y - canvas_height, 0)) * layer.parallax.y;
    const int top =
        layer.edge == LayerEdge::top ? 0 : static_cast<int>(rest) + canvas_height - layer.frame.size.y;
    draw_repeated(list, id, layer.frame, Vec2(0, top) + layer.offset, layer.repeat, style);
  }
  list.add(id, TilesItem{&tiles, level.tile_size(), frames.data(), look.tint, look.opacity});
}

}  // namespace vole
