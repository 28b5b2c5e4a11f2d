// Light: the allotment's picture in the dark with twelve lamps around, against the same by day; and with lamps in a level that is
// not dark, which is to cost nothing.
#include <benchmark/benchmark.h>

#include "game_run.hpp"
#include "vole/draw/raster.hpp"
#include "vole/world/lamp.hpp"

namespace {

constexpr int lamps = 12;

// A level of the allotment, some ticks after it began, with lamps all over what the camera shows.
struct LitScene : AllotmentRun {
  vole::DrawList list;
  vole::Raster raster;
  vole::Image canvas{project.canvas, {0, 0, 0, 255}};

  explicit LitScene(const char* level) {
    enter(level);
    vole::Stage& stage = simulation.stage();
    std::vector<vole::Entity> own;
    stage.entities().visit<vole::Lamp>(
        [&](vole::Entity entity, const vole::Lamp&) { own.push_back(entity); });
    for (const vole::Entity entity : own) stage.entities().remove<vole::Lamp>(entity);
    const vole::Rect seen = stage.camera().seen();
    for (int i = 0; i < lamps; ++i) {
      const vole::Vec2 at{static_cast<float>(i % 4) + 0.5f, static_cast<float>(i / 4) + 0.5f};
      const vole::Entity lamp = stage.entities().create();
      const vole::Vec2 stands = seen.at + at * seen.size / vole::Vec2{4, 3};
      stage.entities().add(lamp, vole::Pose{stands, stands});
      stage.entities().add(lamp, vole::Lamp{});
    }
  }
  void draw() {
    list.start(project.canvas);
    simulation.pile().draw(list, 1);
    list.sort();
    raster.draw(list, canvas);
    benchmark::DoNotOptimize(canvas.row(0));
  }
  static LitScene& of(const char* scene) {
    static LitScene beds("beds"), cellar("cellar");
    return scene[0] == 'b' ? beds : cellar;
  }
};

void pictures(benchmark::State& state, const char* name, float darkness, bool lit) {
  LitScene& scene = LitScene::of(name);
  scene.simulation.stage().level().darken(darkness);
  scene.simulation.stage().entities().visit<vole::Lamp>(
      [&](vole::Entity, vole::Lamp& lamp) { lamp.shines = lit; });
  for ([[maybe_unused]] auto round : state) scene.draw();
}

BENCHMARK_CAPTURE(pictures, dark, "beds", 0.8f, true)->Name("light in the beds/vole");
BENCHMARK_CAPTURE(pictures, day, "beds", 0.0f, false)->Name("light in the beds/by day");
BENCHMARK_CAPTURE(pictures, dark_cellar, "cellar", 0.8f, true)->Name("light in the cellar/vole");
BENCHMARK_CAPTURE(pictures, day_cellar, "cellar", 0.0f, false)->Name("light in the cellar/by day");
BENCHMARK_CAPTURE(pictures, lamps_by_day, "beds", 0.0f, true)->Name("lamps by day/vole");
BENCHMARK_CAPTURE(pictures, no_lamps, "beds", 0.0f, false)->Name("lamps by day/none");

}  // namespace
