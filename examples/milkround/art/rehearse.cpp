// Plays the milk round and records it:
//
//   milkround_rehearse recordings/round.run
#include <fmt/core.h>

#include <cstdio>

#include "driver.hpp"
#include "milkround.hpp"
#include "vole/base/program.hpp"

int main(int argc, char** argv) {
  if (argc != 2) {
    fmt::print(stderr, "usage: milkround_rehearse FILE.run\n");
    return 2;
  }
  try {
    const vole::Game game = milkround();
    vole::Options options;
    options.record = argv[1];
    options.seed = 7;
    Driver driver;
    vole::Session session(game,
                          vole::read_project(vole::find_project("game.toml", vole::program_path(argv[0]))),
                          options, driver);
    driver.watch(session);
    while (session.step()) {
    }
    return session.finish();
  } catch (const std::exception& error) {
    fmt::print(stderr, "{}\n", error.what());
    return 1;
  }
}
