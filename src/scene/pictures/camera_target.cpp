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
    around = count == 0 ? Rect{pose->at, {0, 0}} : around.joined_with({pose->at, {0, 0}});
    if (++count == 1)
      target = CameraTarget{pose->at,
                            pose->before,
                            motion ? motion->velocity : Vec2{0, 0},
                            pose->mirrored ? -1.0f : 1.0f,
                            {0, 0}};
  }
  if (count > 1) {
    target = CameraTarget{};
    target->at = target->before = around.at + around.size * 0.5f;
    target->size = around.size;
  }
  return target;
}

}  // namespace vole
