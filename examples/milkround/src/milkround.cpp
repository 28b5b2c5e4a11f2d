#include "milkround.hpp"

#include "scenes.hpp"
#include "village.hpp"

vole::Game milkround() {
  using namespace milk;
  vole::Game game("game.toml");
  game.scene<Title>("title")
      .scene<Round>("round")
      .scene<End>("end")
      .scene<Pause>("pause")
      .scene<vole::ControlsScene>("keys")
      .knows<Doorstep>("doorstep");
  return game;
}
