// The best that was reached in a game, as a value that lasts between runs:
//
//   game.value<vole::HighScores>("high scores", vole::join_high_scores);
//   game.scene<vole::HighScoresScene>("high scores");             // high_scores_scene.hpp
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "vole/base/describe.hpp"

namespace vole {

struct HighScore {
  std::string name;
  std::int64_t points = 0;
  std::int64_t mark = 0;  // tells it from all others, also where two are alike
};
template <class V>
void describe(V& v, HighScore& score) {
  v.state("name", score.name);
  v.state("points", score.points);
  v.state("mark", score.mark);
}

struct HighScores {
  static constexpr std::size_t most = 10, longest_name = 8;

  std::vector<HighScore> best;  // the largest first; of equal ones that which was there before
  std::string last_name;        // that was entered

  // Whether it would be among them.
  bool takes(std::int64_t points) const;
  // Returns its place from 0 on; `most` where it is not among them.
  std::size_t add(HighScore score);
};
template <class V>
void describe(V& v, HighScores& scores) {
  v.state("best", scores.best, items(HighScores::most));
  v.state("last_name", scores.last_name);
}

// Those of two copies of a game together.
void join_high_scores(HighScores& mine, const HighScores& theirs);

}  // namespace vole
