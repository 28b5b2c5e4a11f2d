#include "scene/pictures/camera_target.hpp"
#include "scene/tick.hpp"

namespace vole {
namespace {

void aim(const World& world, const std::vector<Entity>& followed, float seconds, Camera& camera) {
  if (const auto target = target_of(world, followed))
    camera.follow(*target, seconds);
  else
    camera.stay(seconds);
}

}  // namespace

void aim_camera(Tick& tick) {
  World& world = tick.world;
  const float seconds = tick.stage.seconds_per_tick();
  aim(world, world.followed, seconds, world.camera);
  for (ShownView& view : world.views) aim(world, view.followed, seconds, view.camera);
}

}  // namespace vole
