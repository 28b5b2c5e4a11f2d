// Playheads and clip rules against a plain loop over as many floats.
#include <benchmark/benchmark.h>

#include "vole/animation/playhead.hpp"
#include "vole/asset/clip.hpp"
#include "vole/asset/clip_rules.hpp"
#include "vole/base/random.hpp"

namespace {

constexpr std::size_t many = 100'000;

vole::Clip run_clip() {
  return {.name = "run", .frames = {0, 1, 2, 3}, .millifps = 12'000};
}

// The yardstick: one addition and one comparison for each.
void loop_over(benchmark::State& state, std::size_t count) {
  std::vector<float> times(count, 0.1f);
  for ([[maybe_unused]] auto round : state) {
    for (float& time : times) {
      time += 1.0f / 60;
      if (time > 1) time -= 1;
    }
    benchmark::DoNotOptimize(times.data());
    benchmark::ClobberMemory();
  }
}

void plain_loop(benchmark::State& state) {
  loop_over(state, many);
}

void playheads(benchmark::State& state) {
  const vole::Clip clip = run_clip();
  std::vector<vole::Playhead> all(many);
  for (vole::Playhead& playhead : all) playhead.play(clip);
  for ([[maybe_unused]] auto round : state) {
    for (vole::Playhead& playhead : all) playhead.tick(60, [](const vole::ClipEvent&) {});
    benchmark::ClobberMemory();
  }
  state.counters["bytes"] = sizeof(vole::Playhead);
}

void playheads_with_rules(benchmark::State& state) {
  const vole::Clip clip = run_clip();
  vole::ClipRules rules;
  rules.add("jump", {"not grounded", "vy < 0"})
      .add("fall", {"not grounded"})
      .add("run", {"speed > 8"})
      .add("idle", {});
  std::vector<vole::Playhead> all(many);
  std::vector<std::array<float, 3>> facts(many);
  vole::Random chance(1);
  for (auto& fact : facts)
    fact = {chance.chance(0.5f) ? 1.0f : 0.0f, chance.within(-9, 9), chance.within(0, 20)};
  for (vole::Playhead& playhead : all) playhead.play(clip);
  for ([[maybe_unused]] auto round : state) {
    for (std::size_t i = 0; i < many; ++i) {
      benchmark::DoNotOptimize(rules.decide(facts[i]));
      all[i].tick(60, [](const vole::ClipEvent&) {});
    }
    benchmark::ClobberMemory();
  }
}
BENCHMARK(plain_loop)->Name("100,000 playheads/plain loop")->Unit(benchmark::kMicrosecond);
BENCHMARK(playheads)->Name("100,000 playheads/vole")->Unit(benchmark::kMicrosecond);
BENCHMARK(plain_loop)->Name("100,000 with rules/plain loop")->Unit(benchmark::kMicrosecond);
BENCHMARK(playheads_with_rules)->Name("100,000 with rules/vole")->Unit(benchmark::kMicrosecond);

}  // namespace
