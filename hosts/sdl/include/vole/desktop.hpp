// A game with a window: includes all of Vole and runs a game on the desktop.
//
//   int main(int argc, char** argv) {
//     return vole::run(argc, argv, vole::Game("game.toml").scene<Beds>("beds"));
//   }
#pragma once

#include "vole/vole.hpp"

namespace vole {

// Opens a window unless the options say otherwise, and runs the game to its end. Returns the program's exit
// code.
int run(int argc, char** argv, Game game);

// A window with keyboard, mouse and pads. Throws Error when there is no display.
std::shared_ptr<Host> make_desktop_host();

}  // namespace vole
