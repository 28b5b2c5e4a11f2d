// Sequences that wait most of the time against counters that are all counted down.
#include <benchmark/benchmark.h>

#include <algorithm>
#include <chrono>
#include <string>

#include "counters.hpp"
#include "game_run.hpp"
#include "vole/scene/steps.hpp"
#include "vole/world/world.hpp"

namespace {

constexpr int count = 10'000;

template <class Work>
double seconds_of(const Work& work) {
  const auto begin = std::chrono::steady_clock::now();
  work();
  return std::chrono::duration<double>(std::chrono::steady_clock::now() - begin).count();
}

// What a tick takes longer than one of the same scene without them.
void sequences(benchmark::State& state) {
  AllotmentRun empty, full;
  empty.enter("title");
  full.enter("title");
  vole::Random chance(1);
  for (int i = 0; i < count; ++i) {
    const float seconds = static_cast<float>(Counters::ticks_of_counter(chance)) / 60;
    full.simulation.stage().start_sequence("x" + std::to_string(i),
                                           vole::Steps().repeat(0, vole::Steps().wait(seconds)));
  }
  const auto tick = [](AllotmentRun& run) { return seconds_of([&run] { run.simulation.tick(run.input); }); };
  for ([[maybe_unused]] auto round : state) {
    const double without = tick(empty);
    state.SetIterationTime(std::max(tick(full) - without, 1e-9));
  }
}

void counters(benchmark::State& state) {
  Counters all(count);
  for ([[maybe_unused]] auto round : state)
    state.SetIterationTime(seconds_of([&all] { benchmark::DoNotOptimize(all.pass()); }));
}

BENCHMARK(counters)->Name("10,000 sequences/counters")->Unit(benchmark::kMicrosecond)->UseManualTime();
BENCHMARK(sequences)->Name("10,000 sequences/vole")->Unit(benchmark::kMicrosecond)->UseManualTime();

}  // namespace
