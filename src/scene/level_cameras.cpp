#include "level_cameras.hpp"

#include "vole/level/level.hpp"

namespace vole {

Rect bounds_of(const LevelNow& level) {
  const IRect cells = level.endless() ? level.extent() : IRect{{0, 0}, level.cells()};
  return {Vec2(cells.at * level.tile_size()), Vec2(cells.size * level.tile_size())};
}

LevelCameras::LevelCameras(World& world) : world_(world) {
  if (!world.level) return;
  const Rect bounds = bounds_of(world.level);
  own_ = world.camera.bounds == bounds;
  for (ShownView& view : world.views)
    if (view.camera.bounds == bounds) views_.push_back(&view.camera);
}

void LevelCameras::follow() const {
  if (!own_ && views_.empty()) return;
  const Rect bounds = bounds_of(world_.level);
  if (own_) world_.camera.bounds = bounds;
  for (Camera* const camera : views_) camera->bounds = bounds;
}

}  // namespace vole
