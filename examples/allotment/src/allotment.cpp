#include "allotment.hpp"

#include "scenes.hpp"

vole::Game allotment() {
  vole::Game game("game.toml");
  game.scene<Title>("title").scene<Beds>("beds").scene<Finish>("finish");
  game.component<Bulb>("bulb").component<Mound>("mound").component<Flight>("flight").component<Leaf>("leaf");
  return game;
}
