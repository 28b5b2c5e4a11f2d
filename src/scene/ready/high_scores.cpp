#include "vole/scene/ready/high_scores.hpp"

#include <algorithm>
#include <utility>

namespace vole {

bool HighScores::takes(std::int64_t points) const {
  return points > 0 && (best.size() < most || best.back().points < points);
}

std::size_t HighScores::add(HighScore score) {
  const auto place = std::find_if(best.begin(), best.end(),
                                  [&](const HighScore& other) { return other.points < score.points; });
  const auto index = static_cast<std::size_t>(place - best.begin());
  best.insert(place, std::move(score));
  if (best.size() > most) best.resize(most);
  return std::min(index, most);
}

void join_high_scores(HighScores& mine, const HighScores& theirs) {
  for (const HighScore& score : theirs.best) {
    const bool known = std::any_of(mine.best.begin(), mine.best.end(),
                                   [&](const HighScore& own) { return own.mark == score.mark; });
    if (!known && mine.takes(score.points)) mine.add(score);
  }
  if (mine.last_name.empty()) mine.last_name = theirs.last_name;
}

}  // namespace vole
