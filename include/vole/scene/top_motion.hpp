// Walking seen from above: turns intent into motion, one tick at a time.
#pragma once

#include "vole/input/intent.hpp"
#include "vole/scene/body_motion.hpp"
#include "vole/world/top_mover.hpp"

namespace vole {

// Moves the body for `seconds` (one tick); along what holds it, it slides.
void move_from_above(Moving& moving, const Intent& intent, float seconds, TopMover& mover, Motion& motion,
                     Touching& touching, Pose& pose);

}  // namespace vole
