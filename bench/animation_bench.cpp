// Animators and clip rules against a plain loop over as many floats; tracks and tweens beside them.
#include <benchmark/benchmark.h>

#include "vole/animation/animator.hpp"
#include "vole/base/random.hpp"
#include "vole/scene/components.hpp"
#include "vole/scene/tween.hpp"

namespace {

constexpr std::size_t many = 100'000;
constexpr std::size_t some = 10'000;

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

void animators(benchmark::State& state) {
  const vole::Clip clip = run_clip();
  std::vector<vole::Animator> all(many);
  for (vole::Animator& animator : all) animator.play(clip);
  for ([[maybe_unused]] auto round : state) {
    for (vole::Animator& animator : all) animator.tick(60, [](const vole::ClipEvent&) {});
    benchmark::ClobberMemory();
  }
  state.counters["bytes"] = sizeof(vole::Animator);
}

void animators_with_rules(benchmark::State& state) {
  const vole::Clip clip = run_clip();
  vole::ClipRules rules;
  rules.add("jump", {"not grounded", "vy < 0"})
      .add("fall", {"not grounded"})
      .add("run", {"speed > 8"})
      .add("idle", {});
  std::vector<vole::Animator> all(many);
  std::vector<std::array<float, 3>> facts(many);
  vole::Random chance(1);
  for (auto& fact : facts)
    fact = {chance.chance(0.5f) ? 1.0f : 0.0f, chance.between(-9, 9), chance.between(0, 20)};
  for (vole::Animator& animator : all) animator.play(clip);
  for ([[maybe_unused]] auto round : state) {
    for (std::size_t i = 0; i < many; ++i) {
      benchmark::DoNotOptimize(rules.decide(facts[i]));
      all[i].tick(60, [](const vole::ClipEvent&) {});
    }
    benchmark::ClobberMemory();
  }
}
BENCHMARK(plain_loop)->Name("100,000 animators/plain loop")->Unit(benchmark::kMicrosecond);
BENCHMARK(animators)->Name("100,000 animators/vole")->Unit(benchmark::kMicrosecond);
BENCHMARK(plain_loop)->Name("100,000 with rules/plain loop")->Unit(benchmark::kMicrosecond);
BENCHMARK(animators_with_rules)->Name("100,000 with rules/vole")->Unit(benchmark::kMicrosecond);

void tracks_and_tweens(benchmark::State& state) {
  vole::Entities entities;
  vole::Tweens tweens;
  for (std::size_t i = 0; i < some; ++i) {
    const vole::Entity entity = entities.create();
    entities.add(entity, vole::Sprite{}).play_track(vole::tracks::squash());
    tweens.add(entity, &vole::Sprite::rotation).to(1e6f, 1e6f);
  }
  for ([[maybe_unused]] auto round : state) {
    tweens.step(entities, 60);
    entities.each<vole::Sprite>(
        [](vole::Entity, const vole::Sprite& sprite) { benchmark::DoNotOptimize(sprite.track_pose(60)); });
  }
}
void plain_loop_of_some(benchmark::State& state) {
  loop_over(state, some);
}
BENCHMARK(tracks_and_tweens)->Name("10,000 tracks and tweens/vole")->Unit(benchmark::kMicrosecond);
BENCHMARK(plain_loop_of_some)->Name("10,000 tracks and tweens/plain loop")->Unit(benchmark::kMicrosecond);

}  // namespace
