#include "allotment.hpp"

#include "scenes.hpp"

vole::Game allotment() {
  vole::Game game("game.toml");
  game.scene<Title>("title").scene<Beds>("beds").scene<Finish>("finish").component<Bulb>("bulb");
  return game;
}
