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
      .scene<vole::SettingsOf<Wishes>>("settings", {.keys = "keys"})
      .scene<vole::HighScoresScene>("high scores")
      .value<Wishes>("wishes", vole::Lasts::between_runs)
      .value<vole::HighScores>("high scores", vole::join_high_scores)
      .knows<Doorstep>("doorstep");
  return game;
}
