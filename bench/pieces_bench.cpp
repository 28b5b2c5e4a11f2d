// Pieces: a tick that lays some of the next one, or drops one, against one in which nothing of that happens; along the towpath, by a
// pilot.
#include <benchmark/benchmark.h>

#include <chrono>

#include "../examples/towpath/art/pilot.hpp"
#include "game_run.hpp"
#include "vole/input/gather.hpp"

namespace {

struct TowpathRun : GameRun {
  vole::InputGather gather{controls};
  Pilot pilot;

  TowpathRun() : GameRun(towpath(), VOLE_TOWPATH_FOLDER) { enter("run"); }
  // All that changes when a piece is laid or dropped.
  std::int64_t laid() const {
    const vole::LevelNow& level = simulation.stage().level();
    std::int64_t sum = level.origin().x;
    for (const vole::PutPiece& piece : level.pieces())
      sum +=
          1'000'000 + 1000 * piece.lines + static_cast<std::int64_t>(piece.things) + (piece.leaves ? 7 : 0);
    return sum;
  }
  // The seconds of the next tick of this sort.
  double next(bool builds) {
    while (true) {
      gather.add({*vole::find_control("key Space"), pilot.holds_jump(simulation.stage()) ? 1.0f : 0.0f});
      const vole::TickInput& now = gather.latch();
      const std::int64_t before = laid();
      const auto start = std::chrono::steady_clock::now();
      simulation.tick(now);
      const std::chrono::duration<double> took = std::chrono::steady_clock::now() - start;
      if ((laid() != before) == builds) return took.count();
    }
  }
};

void ticks(benchmark::State& state, bool builds) {
  static TowpathRun run;
  for ([[maybe_unused]] auto round : state) state.SetIterationTime(run.next(builds));
}

BENCHMARK_CAPTURE(ticks, steady, false)->Name("tick of an endless level/vole")->UseManualTime();
BENCHMARK_CAPTURE(ticks, building, true)->Name("tick of an endless level/building")->UseManualTime();

}  // namespace
