// What ends in the same bits everywhere, as text: the flight of many bodies, a long run along the towpath, and the shipped milk
// round. The native program and that for browsers must print the same.
//
//   same_bits <folder of the towpath> <ticks of the run> <folder of the milk round>
#include <cstdio>
#include <cstdlib>

#include "../../examples/towpath/art/pilot.hpp"
#include "../flight.hpp"
#include "milkround.hpp"
#include "towpath.hpp"
#include "vole/app/session.hpp"

namespace {

void run_along(const std::string& folder, int ticks) {
  const vole::Game game = towpath();
  vole::Options options;
  options.seed = 7;
  options.first.scene = "run";
  PilotedHost host;
  vole::Session session(game, vole::read_project(folder + "/game.toml"), options, host);
  host.watch(session);
  for (int i = 0; i < ticks; ++i) session.step();
  std::printf("the towpath, %d ticks: %llx, after %u pieces\n", ticks,
              static_cast<unsigned long long>(session.simulation().checksum()),
              session.stage().level().pieces().back().number);
}

void drive(const std::string& folder) {
  const vole::Game game = milkround();
  vole::Options options;
  options.replay = folder + "/recordings/round.run";
  vole::HeadlessHost host(60);
  vole::Session session(game, vole::read_project(folder + "/game.toml"), options, host);
  const std::int64_t ticks = vole::read_recording(options.replay).ticks;
  for (std::int64_t i = 0; i < ticks; ++i) session.tick();
  std::printf("the milk round, %d ticks: %llx\n", static_cast<int>(ticks),
              static_cast<unsigned long long>(session.simulation().checksum()));
}

}  // namespace

int main(int argc, char** argv) {
  if (argc != 4) return 2;
  const std::uint64_t sum = flight_of_many(3600);
  std::printf("500 bodies, 3600 ticks: %llx\n", static_cast<unsigned long long>(sum));
  run_along(argv[1], std::atoi(argv[2]));
  drive(argv[3]);
  return sum == sum_after_3600 ? 0 : 1;
}
