// Timers against counters that are all counted down.
#include <benchmark/benchmark.h>

#include "counters.hpp"
#include "vole/world/timers.hpp"

namespace {

constexpr int count = 100'000;

// Each comes again and again, so as many are due in each tick.
void timers(benchmark::State& state) {
  vole::Random chance(1);
  vole::Timers all;
  for (int i = 0; i < count; ++i) {
    const std::int64_t every = Counters::ticks_of_counter(chance);
    all.add({.name = "drip", .every = every}, every, chance);
  }
  std::vector<vole::Told> told;
  for ([[maybe_unused]] auto round : state) {
    told.clear();
    all.pass(chance, told);
    benchmark::DoNotOptimize(told.size());
  }
}

void counters(benchmark::State& state) {
  Counters all(count);
  for ([[maybe_unused]] auto round : state) benchmark::DoNotOptimize(all.pass());
}

BENCHMARK(counters)->Name("100,000 timers/counters")->Unit(benchmark::kMicrosecond);
BENCHMARK(timers)->Name("100,000 timers/vole")->Unit(benchmark::kMicrosecond);

}  // namespace
