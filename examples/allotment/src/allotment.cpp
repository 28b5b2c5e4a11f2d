#include "allotment.hpp"

#include "scenes.hpp"

vole::Game allotment() {
  vole::Game game("game.toml");
  game.scene<Title>("title").scene<Garden>("garden").scene<Finish>("finish").scene<Pause>("pause");
  game.value<Wishes>("wishes", vole::Lasts::between_runs);
  game.value<vole::HighScores>("high scores", vole::join_high_scores);
  game.scene<vole::SettingsOf<Wishes>>("settings", {.keys = "keys"}).scene<vole::ControlsScene>("keys");
  game.scene<vole::HighScoresScene>("high scores");
  game.knows<Bulb>("bulb").knows<Mound>("mound").knows<Flight>("flight").knows<Leaf>("leaf").knows<Lever>(
      "lever");
  return game;
}
