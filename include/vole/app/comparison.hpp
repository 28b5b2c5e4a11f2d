// Two recordings of a game, played side by side to the first tick after which their states differ.
#pragma once

#include <string>

#include "vole/app/game.hpp"
#include "vole/app/project.hpp"

namespace vole {

// Prints where they part: the tick, and which fields of which things have which values then; or that they do not. 1 when they part, or
// end at different ticks; 0 else. Throws Error for recordings that cannot be played.
int compare_recordings(const Game& game, const Project& project, const std::string& first,
                       const std::string& second);

}  // namespace vole
