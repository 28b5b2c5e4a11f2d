// An endless level goes on in front of the camera, and leaves behind it.
#include "../pieces.hpp"

#include "../tick.hpp"

namespace vole {

void go_along(Tick& tick) {
  if (!tick.world.level.endless()) return;
  const IVec2 before = tick.world.level.origin();
  Pieces(tick.setting, tick.world).go_along(Haste::spread);
  const IVec2 cells = before - tick.world.level.origin();
  if (cells != IVec2{0, 0})
    tick.scene_type.move_positions(tick.scene, {cells, Vec2(cells * tick.world.level.tile_size())});
}

}  // namespace vole
