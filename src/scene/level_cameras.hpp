// The cameras that may show all of a level.
#pragma once

#include <vector>

#include "vole/world/world.hpp"

namespace vole {

// What the camera stays inside.
Rect bounds_of(const LevelNow& level);

// The cameras that may show all of the level, before it becomes larger or smaller: so they may afterwards. One that looks within a
// zone, or that code has set other bounds for, stays as it is.
class LevelCameras {
 public:
  explicit LevelCameras(World& world);
  void follow() const;

 private:
  World& world_;
  bool own_ = false;            // the scene's camera
  std::vector<Camera*> views_;  // of further views: nothing is allocated where there are none
};

}  // namespace vole
