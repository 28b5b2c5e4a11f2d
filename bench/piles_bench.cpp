// Scenes over scenes, against one.
#include <benchmark/benchmark.h>

#include "game_run.hpp"
#include "vole/app/pile_picture.hpp"
#include "vole/world/world.hpp"

namespace {

// So many scenes: the beds, and pauses over them.
void picture_of(benchmark::State& state, int scenes) {
  AllotmentRun run;
  run.enter("beds");
  while (static_cast<int>(run.simulation.pile().size()) < scenes) {
    run.simulation.stage().open("pause");
    run.simulation.make_change();
    run.simulation.stage().cover() = {};
  }
  vole::PilePicture pictures;
  vole::Image canvas(run.project.canvas);
  for ([[maybe_unused]] auto round : state) {
    pictures.draw(run.simulation, run.game, run.catalog, 0.5f, {}, canvas);
    benchmark::DoNotOptimize(canvas.row(0));
  }
}
void one(benchmark::State& state) {
  picture_of(state, 1);
}
void three(benchmark::State& state) {
  picture_of(state, 3);
}

BENCHMARK(one)->Name("a pile of three scenes/one alone")->Unit(benchmark::kMicrosecond);
BENCHMARK(three)->Name("a pile of three scenes/vole")->Unit(benchmark::kMicrosecond);

}  // namespace
