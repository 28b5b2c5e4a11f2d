// Plays the towpath for a while and records the run:
//
//   towpath_rehearse recordings/home.run
#include <fmt/core.h>

#include <cstdio>

#include "pilot.hpp"
#include "towpath.hpp"
#include "vole/app/session.hpp"
#include "vole/base/program.hpp"

namespace {

constexpr std::int64_t ticks = 3600;

class Player final : public PilotedHost {
 public:
  bool closing() const override { return session_->stage().ticks() >= ticks; }
};

}  // namespace

int main(int argc, char** argv) {
  if (argc != 2) {
    fmt::print(stderr, "usage: towpath_rehearse FILE.run\n");
    return 2;
  }
  try {
    const vole::Game game = towpath();
    vole::Options options;
    options.record = argv[1];
    options.seed = 7;
    options.first.scene = "run";
    Player player;
    vole::Session session(game,
                          vole::read_project(vole::find_project("game.toml", vole::program_path(argv[0]))),
                          options, player);
    player.watch(session);
    while (session.step()) {
    }
    return session.finish();
  } catch (const std::exception& error) {
    fmt::print(stderr, "{}\n", error.what());
    return 1;
  }
}
