// Whether a thing is one that a cue is about.
#pragma once

#include "vole/scene/cues.hpp"
#include "vole/scene/stage.hpp"

namespace vole {

bool fits(const Stage& stage, Entity entity, const Which& which);

}  // namespace vole
