// Runs a game from its main function; see also window.hpp, whose run() opens a window.
#pragma once

#include <functional>
#include <memory>

#include "vole/app/game.hpp"

namespace vole {

class Host;

// Makes the host that shows the game. Throws Error when there is no display.
using MakeHost = std::function<std::shared_ptr<Host>()>;

// Reads the options (options.hpp), runs the game to its end and returns the program's exit code: 0, 1 when
// something in the game's files or the replayed run is wrong, 2 for a wrong command line. Without `window` it
// is always headless.
int run_on(const MakeHost& window, int argc, const char* const* argv, Game game);

}  // namespace vole
