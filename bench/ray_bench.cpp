// A thousand rays across a map of 1000 x 1000 tiles against a plain walk over a byte for each cell, where what is solid lies
// in masses, as in levels, and where it is dust, which is the worst case; and what the solid cells of a large level take.
#include <benchmark/benchmark.h>

#include <cmath>
#include <limits>
#include <vector>

#include "vole/base/random.hpp"
#include "vole/physics/collision_world.hpp"

namespace {

int below(vole::Random& chance, int count) {
  return static_cast<int>(chance.below(static_cast<std::uint32_t>(count)));
}

constexpr int side = 1000, cell = 16, count = 1000;

// Calls put(cell) until one tenth of so many cells a side is filled, in masses.
template <class Put>
void fill_in_masses(int cells, const Put& put) {
  vole::Random chance(10);
  std::int64_t filled = 0;
  while (filled < std::int64_t{cells} * cells / 10) {
    const vole::IVec2 at{below(chance, cells - 64), below(chance, cells - 64)};
    const int wide = 16 + below(chance, 48), high = 16 + below(chance, 48);
    for (int y = 0; y < high; ++y)
      for (int x = 0; x < wide; ++x) put(at + vole::IVec2{x, y});
    filled += std::int64_t{wide} * high;
  }
}

struct Field {
  vole::SolidGrid grid{{side, side}, cell, {false, false, false, false}};
  std::vector<unsigned char> bytes = std::vector<unsigned char>(side * side, 0);
  std::vector<vole::Vec2> from, motion;

  explicit Field(bool dust) {
    vole::Random chance(9);
    const auto put = [this](vole::IVec2 at) {
      grid.set(at, true);
      bytes[static_cast<std::size_t>(at.y * side + at.x)] = 1;
    };
    if (!dust) fill_in_masses(side, put);
    for (int y = 0; y < side && dust; ++y)
      for (int x = 0; x < side; ++x)
        if (chance.chance(0.01f)) put({x, y});
    const auto anywhere = [&chance] {
      const float x = chance.within(0, side * cell);
      return vole::Vec2{x, chance.within(0, side * cell)};
    };
    while (from.size() < count) {
      const vole::Vec2 start = anywhere();
      if (grid.solid(static_cast<int>(start.x) / cell, static_cast<int>(start.y) / cell)) continue;
      from.push_back(start);
      motion.push_back(anywhere() - start);
    }
  }
};

const Field& field(bool dust) {
  static const Field masses(false), grains(true);
  return dust ? grains : masses;
}

// The walk as a book has it.
double plain_ray(const std::vector<unsigned char>& bytes, vole::Vec2 from, vole::Vec2 motion) {
  int x = static_cast<int>(from.x) / cell, y = static_cast<int>(from.y) / cell;
  const int step_x = motion.x > 0 ? 1 : -1, step_y = motion.y > 0 ? 1 : -1;
  const auto first = [](float start, float by, int at) {
    return by == 0 ? std::numeric_limits<double>::infinity()
                   : (static_cast<double>((at + (by > 0 ? 1 : 0)) * cell) - static_cast<double>(start)) /
                         static_cast<double>(by);
  };
  double next_x = first(from.x, motion.x, x), next_y = first(from.y, motion.y, y), when = 0;
  const double each_x = cell / std::abs(static_cast<double>(motion.x)),
               each_y = cell / std::abs(static_cast<double>(motion.y));
  while (when <= 1 && x >= 0 && y >= 0 && x < side && y < side) {
    if (bytes[static_cast<std::size_t>(y * side + x)] != 0) return when;
    if (next_x < next_y) {
      when = next_x;
      next_x += each_x;
      x += step_x;
    } else {
      when = next_y;
      next_y += each_y;
      y += step_y;
    }
  }
  return 2;
}

// What the cells of a large level take, one tenth filled. In shares of a byte for each.
double memory_of_cells() {
  constexpr int large = 4096;
  vole::SolidGrid grid({large, large}, cell);
  fill_in_masses(large, [&grid](vole::IVec2 at) { grid.set(at, true); });
  return static_cast<double>(grid.memory()) / (static_cast<double>(large) * large);
}

void rays(benchmark::State& state, bool dust) {
  vole::CollisionWorld world;
  world.set_tiles(&field(dust).grid);
  for ([[maybe_unused]] auto round : state)
    for (std::size_t i = 0; i < count; ++i)
      benchmark::DoNotOptimize(world.cast_ray(field(dust).from[i], field(dust).motion[i]));
  static const double memory = memory_of_cells();
  state.counters["memory, % of a byte map"] = memory * 100;
}

void plain_rays(benchmark::State& state, bool dust) {
  for ([[maybe_unused]] auto round : state)
    for (std::size_t i = 0; i < count; ++i)
      benchmark::DoNotOptimize(plain_ray(field(dust).bytes, field(dust).from[i], field(dust).motion[i]));
}

BENCHMARK_CAPTURE(rays, masses, false)->Name("1000 rays among masses/vole");
BENCHMARK_CAPTURE(plain_rays, masses, false)->Name("1000 rays among masses/plain walk");
BENCHMARK_CAPTURE(rays, dust, true)->Name("1000 rays among dust/vole");
BENCHMARK_CAPTURE(plain_rays, dust, true)->Name("1000 rays among dust/plain walk");

// Ten thousand bodies that walk among a thousand others against a thousand that do: what one costs.
void walk_bodies(benchmark::State& state, std::uint32_t bodies) {
  vole::Random chance(11);
  vole::SolidGrid grid({side, side}, cell);
  for (int y = 0; y < side; y += 4)
    for (int x = 0; x < side; ++x) grid.set({x, y}, true);
  vole::CollisionWorld world;
  world.set_tiles(&grid);
  std::vector<float> speeds;
  for (std::uint32_t id = 0; id < bodies; ++id) {
    const float row = static_cast<float>(4 * (1 + below(chance, side / 4 - 1)) * cell);
    world.put(id, {.at = {std::floor(chance.within(16, side * cell - 16)), row},
                   .box = {{-6, -12}, {12, 12}},
                   .shapes = nullptr});
    speeds.push_back(chance.within(-3, 3));
  }
  std::uint32_t next = 0;
  for ([[maybe_unused]] auto round : state) {
    vole::CollisionBody body = world.body(next);
    const vole::BodyMoved moved = world.walk(body, speeds[next], {.self = next});
    if (moved.left.any || moved.right.any) speeds[next] = -speeds[next];
    body.at = moved.at;
    world.put(next, body);
    next = next + 1 == bodies ? 0 : next + 1;
  }
  state.counters["bytes a body"] = static_cast<double>(sizeof(vole::CollisionBody));
}
void many_walkers(benchmark::State& state) {
  walk_bodies(state, 10'000);
}
void few_walkers(benchmark::State& state) {
  walk_bodies(state, 1'000);
}
BENCHMARK(many_walkers)->Name("one of 10000 walkers/vole");
BENCHMARK(few_walkers)->Name("one of 10000 walkers/one of 1000");

}  // namespace
