#include "vole/scene/level_drawing.hpp"

#include <algorithm>

#include "vole/draw/background.hpp"

namespace vole {

void draw_level_layer(DrawList& list, LayerId id, const Level& level, const LevelLayer& layer,
                      const std::vector<std::uint16_t>& tiles) {
  constexpr float behind_all = -1e9f;
  const int canvas_height = list.canvas().y;
  if (layer.picture && layer.cover) {
    draw_covering(list, id, layer.frame, {.depth = behind_all});
  } else if (layer.picture) {
    const auto rest = static_cast<float>(std::max(level.size().y - canvas_height, 0)) * layer.parallax.y;
    const int top =
        layer.edge == LayerEdge::top ? 0 : static_cast<int>(rest) + canvas_height - layer.frame.size.y;
    draw_repeated(list, id, layer.frame, Vec2(0, top), layer.repeat, {.depth = behind_all});
  }
  if (!tiles.empty())
    list.add(id, TilesItem{level.tileset->picture.get(), tiles.data(), level.cells, level.tile_size(),
                           level.tileset->frames.data()});
}

}  // namespace vole
