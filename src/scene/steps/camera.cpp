#include "../tick.hpp"

namespace vole {

void aim_camera(Tick& tick) {
  if (const Pose* pose = tick.world.entities.find<Pose>(tick.world.followed))
    tick.world.camera.follow(pose->at, tick.stage.seconds_per_tick());
  else
    tick.world.camera.stay();
}

}  // namespace vole
