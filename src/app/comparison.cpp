#include "vole/app/comparison.hpp"

#include <fmt/core.h>

#include "vole/app/live_files.hpp"
#include "vole/app/recorder.hpp"
#include "vole/app/simulation.hpp"
#include "vole/app/state_difference.hpp"

namespace vole {
namespace {

// One of the two, as a replay plays it.
class PlayedRun {
 public:
  PlayedRun(const Game& game, const Project& project, const std::string& file)
      : files_(project),
        replay_(file, project, *files_.controls),
        simulation_(game,
                    {files_.catalog, files_.kinds, files_.controls, project.canvas, project.ticks_per_second},
                    replay_.seed()) {
    ask_for(simulation_, game, project, replay_.first());
    arrive();
  }

  std::int64_t length() const { return replay_.length(); }
  // What is done in the tick. A scene that is left as soon as it is entered has a tick, as where it is played.
  const TickInput& tick() {
    if (simulation_.change()) simulation_.make_change();
    if (simulation_.ticks() > 0) arrive();
    const TickInput& input = replay_.next();
    simulation_.tick(input);
    return input;
  }
  std::uint64_t checksum() const { return simulation_.checksum(); }
  std::string state() const { return simulation_.to_toml(); }

 private:
  void arrive() {
    if (const Arrived* const arrived = replay_.take_arrived(simulation_.ticks()))
      simulation_.arrive(*arrived);
  }

  LiveFiles files_;
  Replay replay_;
  Simulation simulation_;
};

// What was pressed follows into the state, and is no news.
bool is_input(const StateDifference& difference) {
  return difference.thing.empty() && difference.field.starts_with("world.input");
}

void print_differences(const PlayedRun& first, const PlayedRun& second) {
  constexpr std::size_t most = 20;
  std::vector<StateDifference> all =
      state_differences(parse_toml(first.state(), "first"), parse_toml(second.state(), "second"));
  const std::size_t count = all.size();
  std::erase_if(all, is_input);
  if (all.empty() && count > 0) fmt::print("  in what is pressed alone\n");
  for (std::size_t i = 0; i < all.size() && i < most; ++i) fmt::print("  {}\n", to_text(all[i]));
  if (all.size() > most) fmt::print("  and {} more\n", all.size() - most);
}

}  // namespace

int compare_recordings(const Game& game, const Project& project, const std::string& first,
                       const std::string& second) {
  PlayedRun one(game, project, first), other(game, project, second);
  const std::int64_t both = std::min(one.length(), other.length());
  for (std::int64_t tick = 1; tick <= both; ++tick) {
    one.tick();
    other.tick();
    if (one.checksum() == other.checksum()) continue;
    fmt::print("alike for {} ticks; after tick {} the states differ:\n", tick - 1, tick);
    print_differences(one, other);
    return 1;
  }
  fmt::print("alike for {} ticks\n", both);
  if (one.length() == other.length()) return 0;
  fmt::print("{} ends there, and the other goes on to tick {}\n",
             one.length() < other.length() ? first : second, std::max(one.length(), other.length()));
  return 1;
}

}  // namespace vole
