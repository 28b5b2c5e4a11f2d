// A game that is seen: includes all of Vole, and runs a game in a window, or in the page of a browser.
//
//   int main(int argc, char** argv) {
//     return vole::run(argc, argv, vole::Game("game.toml").scene<Beds>("beds"));
//   }
#pragma once

#include "vole/vole.hpp"

namespace vole {

// Opens a window unless the options say otherwise, and runs the game to its end. Returns the program's exit
// code. In a browser it returns 0 at once, and the page calls the game from then on.
int run(int argc, char** argv, Game game);
#if defined(_WIN32)
int run(int argc, wchar_t** argv, Game game);  // for games whose main function is wmain
#endif

// A window or page with keyboard, mouse and pads. Throws Error when there is no display.
std::shared_ptr<Host> make_window_host();

}  // namespace vole
