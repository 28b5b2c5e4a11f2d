// Ten thousand moving boxes against a thousand: the cost of one must not grow with their number.
#include <benchmark/benchmark.h>

#include <vector>

#include "vole/base/random.hpp"
#include "vole/physics/box_in_grid.hpp"

namespace {

void move_boxes(benchmark::State& state, std::size_t count) {
  vole::Random chance(4);
  vole::SolidGrid grid({1000, 1000}, 16);
  for (int y = 0; y < 1000; ++y)
    for (int x = 0; x < 1000; ++x) grid.set({x, y}, chance.chance(0.1f));
  std::vector<vole::Rect> boxes;
  std::vector<vole::Vec2> motions;
  for (std::size_t i = 0; i < count; ++i) {
    boxes.push_back({{chance.within(0, 16000), chance.within(0, 16000)}, {12, 12}});
    motions.push_back({chance.within(-4, 4), chance.within(-4, 4)});
  }
  std::size_t next = 0;
  // A round moves one box, so that the time is that of one body.
  for ([[maybe_unused]] auto round : state) {
    const vole::Moved moved = vole::move_box(grid, boxes[next], motions[next]);
    boxes[next].at = moved.at;
    if (moved.left || moved.right) motions[next].x = -motions[next].x;
    if (moved.above || moved.below) motions[next].y = -motions[next].y;
    next = next + 1 == count ? 0 : next + 1;
  }
}

void many_boxes(benchmark::State& state) {
  move_boxes(state, 10'000);
}
void few_boxes(benchmark::State& state) {
  move_boxes(state, 1'000);
}
BENCHMARK(many_boxes)->Name("one of 10000 bodies/vole");
BENCHMARK(few_boxes)->Name("one of 10000 bodies/one of 1000");

}  // namespace
