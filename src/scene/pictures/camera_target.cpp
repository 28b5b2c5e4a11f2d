#include "camera_target.hpp"

#include "vole/world/motion.hpp"
#include "vole/world/pose.hpp"

namespace vole {

std::optional<CameraTarget> target_of(const World& world, const std::vector<Entity>& things) {
  std::optional<CameraTarget> target;
  Rect around;
  int count = 0;
  for (const Entity thing : things) {
    const Pose* const pose = world.entities.find<Pose>(thing);
    if (!pose) continue;
    const Motion* const motion = world.entities.find<Motion>(thing);
    // As it is drawn at the end of the tick and at its begin.
    const Vec2 at = pose->shown_at(shown_share(world, thing, 1)),
               before = pose->shown_at(shown_share(world, thing, 0));
    around = count == 0 ? Rect{at, {0, 0}} : around.joined_with({at, {0, 0}});
    if (++count == 1)
      target = CameraTarget{
          at, before, motion ? motion->velocity : Vec2{0, 0}, pose->mirrored ? -1.0f : 1.0f, {0, 0}};
  }
  if (count > 1) {
    target = CameraTarget{};
    target->at = target->before = around.at + around.size * 0.5f;
    target->size = around.size;
  }
  return target;
}

}  // namespace vole
