#include "allotment.hpp"

#include "scenes.hpp"

vole::Game allotment() {
  vole::Game game("game.toml");
  game.scene<Title>("title").scene<Garden>("garden").scene<Finish>("finish").scene<Pause>("pause");
  game.knows<Bulb>("bulb").knows<Mound>("mound").knows<Flight>("flight").knows<Leaf>("leaf").knows<Lever>(
      "lever");
  return game;
}
