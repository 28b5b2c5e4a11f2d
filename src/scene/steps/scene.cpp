#include "scene/tick.hpp"

namespace vole {

void run_scene(Tick& tick) {
  tick.scene.tick(tick.stage);
}

}  // namespace vole
