// Whether a thing is one that a cue is about.
#pragma once

#include "vole/scene/cues.hpp"
#include "vole/scene/stage.hpp"

namespace vole {

bool fits(const Stage& stage, Entity entity, const ThingSelector& which);
// The place among the thing's shapes of the one that is meant; any_shape for all of them.
std::uint32_t shape_meant(const Stage& stage, Entity entity, const ThingSelector& which);

}  // namespace vole
