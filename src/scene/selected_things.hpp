// Whether a thing is one that is meant.
#pragma once

#include "vole/scene/stage.hpp"
#include "vole/scene/thing_selector.hpp"

namespace vole {

struct Kinds;

bool fits(const Stage& stage, Entity entity, const ThingSelector& which);
// The place among the thing's shapes of the one that is meant; any_shape for all of them.
std::uint32_t shape_meant(const Stage& stage, Entity entity, const ThingSelector& which);
// Throws Error for a kind, tag, category or shape that is not there. Zones are of the level that is loaded, which may be another when it
// comes to that: see cue_names.hpp.
void expect_known(const Kinds& kinds, const ThingSelector& which);

}  // namespace vole
