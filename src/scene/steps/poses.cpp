#include "scene/tick.hpp"

namespace vole {

// What takes no step in this tick is still drawn on the way of its last one.
void remember_poses(Tick& tick) {
  Entities& entities = tick.world.entities;
  const bool all_go_on = tick.world.time.steps > 0;
  if (all_go_on && !entities.any<OwnTime>())
    return entities.visit<Pose>([](Entity, Pose& pose) { pose.before = pose.at; });
  entities.visit<Pose>([&](Entity thing, Pose& pose) {
    const OwnTime* const own = std::as_const(entities).find<OwnTime>(thing);
    if (own ? own->steps > 0 : all_go_on) pose.before = pose.at;
  });
}

}  // namespace vole
