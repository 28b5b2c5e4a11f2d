#include "scene/tick.hpp"

namespace vole {

void remember_poses(Tick& tick) {
  tick.world.entities.visit<Pose>([](Entity, Pose& pose) { pose.before = pose.at; });
}

}  // namespace vole
