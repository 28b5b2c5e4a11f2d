#include "scene/pictures/placement.hpp"
#include "scene/tick.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/world/attached.hpp"

namespace vole {

void follow_points(Tick& tick) {
  tick.world.entities.visit<Attached, Pose>([&tick](Entity thing, const Attached&, Pose& pose) {
    pose.at = on_lattice(placement(tick.world, thing, 1, Tracks::left_out, tick.setting.ticks_per_second).at);
  });
}

}  // namespace vole
