// What it costs to keep, restore and fill a world: against ticks and pictures of the shipped game.
#include <benchmark/benchmark.h>

#include "game_run.hpp"
#include "vole/asset/track.hpp"
#include "vole/draw/raster.hpp"

namespace {

const vole::Track& bob() {
  static const vole::Track track = [] {
    vole::Track made;
    made.name = "bob";
    made.loop = true;
    made.offset = {{0, {0, 0}}, {500'000, {0, 3}}, {1'000'000, {0, 0}}};
    return made;
  }();
  return track;
}

// The beds, some way into the game.
struct Beds : AllotmentRun {
  Beds() {
    game.knows(bob());
    enter("beds");
  }
};

Beds& beds() {
  static Beds one;
  return one;
}

void ten_ticks(benchmark::State& state) {
  for ([[maybe_unused]] auto round : state)
    for (int i = 0; i < 10; ++i) beds().simulation.tick(beds().input);
}
void snapshot(benchmark::State& state) {
  std::size_t bytes = 0;
  for ([[maybe_unused]] auto round : state) {
    const vole::Snapshot taken = beds().simulation.snapshot();
    bytes = taken.bytes.size();
    benchmark::DoNotOptimize(taken.bytes.data());
  }
  state.counters["bytes"] = static_cast<double>(bytes);
}
void restore(benchmark::State& state) {
  const vole::Snapshot taken = beds().simulation.snapshot();
  for ([[maybe_unused]] auto round : state) beds().simulation.restore(taken);
}
BENCHMARK(snapshot)->Name("snapshot/vole")->Unit(benchmark::kMicrosecond);
BENCHMARK(ten_ticks)->Name("snapshot/ten ticks")->Unit(benchmark::kMicrosecond);
BENCHMARK(restore)->Name("restore/vole")->Unit(benchmark::kMicrosecond);
BENCHMARK(ten_ticks)->Name("restore/ten ticks")->Unit(benchmark::kMicrosecond);

void put_down(benchmark::State& state) {
  vole::Stage& stage = beds().simulation.stage();
  for ([[maybe_unused]] auto round : state) {
    for (int i = 0; i < 500; ++i) stage.spawn("leaf", {static_cast<float>(i), 20});
    state.PauseTiming();
    stage.entities().visit<vole::KindOf>([&](vole::Entity entity, const vole::KindOf& kind) {
      if (kind.name == "leaf") stage.remove(entity);
    });
    stage.entities().sweep();
    state.ResumeTiming();
  }
}
void picture(benchmark::State& state) {
  vole::DrawList list;
  vole::Raster raster;
  vole::Image canvas(beds().project.canvas);
  for ([[maybe_unused]] auto round : state) {
    canvas.fill(beds().simulation.pile().sky());
    list.start(beds().project.canvas);
    beds().simulation.pile().draw(list, 0.5f);
    list.sort();
    raster.draw(list, canvas);
  }
}
// The beds with 2,000 leaves more, each with a tween and a track under way, or with neither.
void tick_with_leaves(benchmark::State& state, bool moved) {
  Beds crowded;
  vole::Stage& stage = crowded.simulation.stage();
  for (int i = 0; i < 2000; ++i) {
    const vole::Entity leaf = stage.spawn("leaf", {static_cast<float>(i % 300), 20});
    if (!moved) continue;
    stage.tween(leaf, &vole::Sprite::opacity).to(0.5f, 1e6f);
    stage.get<vole::Sprite>(leaf).play_track(bob());
  }
  for ([[maybe_unused]] auto round : state) crowded.simulation.tick(crowded.input);
}
void tick_moved(benchmark::State& state) {
  tick_with_leaves(state, true);
}
void tick_unmoved(benchmark::State& state) {
  tick_with_leaves(state, false);
}
BENCHMARK(tick_moved)->Name("2,000 tweens and tracks/vole")->Unit(benchmark::kMicrosecond);
BENCHMARK(tick_unmoved)->Name("2,000 tweens and tracks/the tick without")->Unit(benchmark::kMicrosecond);

BENCHMARK(put_down)->Name("500 things put down/vole")->Unit(benchmark::kMicrosecond);
BENCHMARK(picture)->Name("500 things put down/a picture")->Unit(benchmark::kMicrosecond);

}  // namespace
