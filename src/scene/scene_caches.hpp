// What is kept from one scene to the next of the same run, so that a scene that is restored or wound back does not look for all of it
// in one tick. None of it decides anything.
#pragma once

#include "scene/minds/mind_ledges.hpp"

namespace vole {

struct SceneCaches {
  MindLedges ledges;
};

}  // namespace vole
