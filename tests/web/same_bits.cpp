// What ends in the same bits everywhere, as text: the flight of many bodies, and a long run along the towpath. The native program
// and that for browsers must print the same.
//
//   same_bits <folder of the towpath> <ticks of the run>
#include <cstdio>
#include <cstdlib>

#include "../../examples/towpath/art/pilot.hpp"
#include "../flight.hpp"
#include "towpath.hpp"
#include "vole/app/session.hpp"

namespace {

void run_along(const std::string& folder, int ticks) {
  const vole::Game game = towpath();
  vole::Options options;
  options.seed = 7;
  PilotedHost host;
  vole::Session session(game, vole::read_project(folder + "/game.toml"), options, host);
  host.watch(session);
  for (int i = 0; i < ticks; ++i) session.step();
  std::printf("the towpath, %d ticks: %llx, after %u pieces\n", ticks,
              static_cast<unsigned long long>(session.simulation().checksum()),
              session.stage().level().pieces().back().number);
}

}  // namespace

int main(int argc, char** argv) {
  if (argc != 3) return 2;
  const std::uint64_t sum = flight_of_many(3600);
  std::printf("500 bodies, 3600 ticks: %llx\n", static_cast<unsigned long long>(sum));
  run_along(argv[1], std::atoi(argv[2]));
  return sum == sum_after_3600 ? 0 : 1;
}
