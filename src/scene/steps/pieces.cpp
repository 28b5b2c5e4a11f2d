// An endless level goes on in front of the camera, and leaves behind it.
#include "scene/endless_level.hpp"
#include "scene/tick.hpp"
#include "vole/base/positions.hpp"

namespace vole {

void go_along(Tick& tick) {
  if (!tick.world.level.endless()) return;
  const IVec2 before = tick.world.level.origin();
  EndlessGoing(tick.setting, tick.world).go_along(Haste::spread);
  const IVec2 cells = before - tick.world.level.origin();
  if (cells == IVec2{0, 0}) return;
  const OriginMove by{cells, Vec2(cells * tick.world.level.tile_size())};
  tick.scene_type.described->move_origin(tick.scene_type.members(tick.scene), {}, by);
}

}  // namespace vole
