// What a side_mover can do besides walking, jumping and falling; each is off where its number is 0.
#pragma once

#include "vole/scene/movers/side_motion.hpp"
#include "vole/scene/movers/surroundings.hpp"

namespace vole {

// Each moves the body for this tick where it applies, and says whether it did.
bool dash(MoverTurn& turn, SideMover& mover);
bool climb(MoverTurn& turn, SideMover& mover, const Surroundings& around);
bool swim(MoverTurn& turn, SideMover& mover, const Surroundings& around);
// Makes the body lower, or as high as it was where there is room.
void crouch(MoverTurn& turn, SideMover& mover);

// What they share with walking and falling. `fly_on`: by its velocity, which loses what goes into what holds it.
float towards(float value, float target, float step);
void begin_jump(MoverTurn& turn, SideMover& mover, float speed);
void fly_on(MoverTurn& turn);

}  // namespace vole
