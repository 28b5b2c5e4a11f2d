// Ten thousand boxes that all move, and all pairs of them that touch: ours against Boost.Geometry's R-tree, built anew
// for each tick and kept up to date.
#include <benchmark/benchmark.h>

#include <boost/geometry.hpp>
#include <boost/geometry/geometries/box.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/index/rtree.hpp>
#include <cstdint>
#include <utility>
#include <vector>

#include "vole/base/random.hpp"
#include "vole/physics/pair_finder.hpp"

namespace {

namespace bgi = boost::geometry::index;
using Point = boost::geometry::model::d2::point_xy<float>;
using Box = boost::geometry::model::box<Point>;
using Item = std::pair<Box, std::uint32_t>;
using Tree = bgi::rtree<Item, bgi::quadratic<16>>;
using Pairs = std::vector<std::pair<std::uint32_t, std::uint32_t>>;

constexpr std::uint32_t count = 10'000;

struct Crowd {
  std::vector<vole::Rect> boxes;
  std::vector<vole::Vec2> motions;

  Crowd() {
    vole::Random chance(6);
    for (std::uint32_t i = 0; i < count; ++i) {
      boxes.push_back(
          {{chance.within(0, 6000), chance.within(0, 6000)}, {chance.within(8, 24), chance.within(8, 24)}});
      motions.push_back({chance.within(-4, 4), chance.within(-4, 4)});
    }
  }
  void tick() {
    for (std::uint32_t i = 0; i < count; ++i) {
      vole::Rect& box = boxes[i];
      box.at += motions[i];
      if (box.left() < 0 || box.left() > 6000) motions[i].x = -motions[i].x;
      if (box.top() < 0 || box.top() > 6000) motions[i].y = -motions[i].y;
    }
  }
};

Box to_boost(const vole::Rect& box) {
  return {{box.left(), box.top()}, {box.right(), box.bottom()}};
}

void find_pairs(const Tree& tree, const Crowd& crowd, Pairs& pairs) {
  for (std::uint32_t i = 0; i < count; ++i)
    for (auto found = tree.qbegin(bgi::intersects(to_boost(crowd.boxes[i]))); found != tree.qend(); ++found)
      if (found->second > i) pairs.emplace_back(i, found->second);
}

void with_strips(benchmark::State& state) {
  Crowd crowd;
  vole::PairFinder finder;
  Pairs pairs;
  for ([[maybe_unused]] auto tick : state) {
    crowd.tick();
    pairs.clear();
    finder.find(crowd.boxes, pairs);
    benchmark::DoNotOptimize(pairs.data());
  }
  state.counters["pairs"] = static_cast<double>(pairs.size());
}

void with_new_tree(benchmark::State& state) {
  Crowd crowd;
  std::vector<Item> items(count);
  Pairs pairs;
  for ([[maybe_unused]] auto tick : state) {
    crowd.tick();
    pairs.clear();
    for (std::uint32_t i = 0; i < count; ++i) items[i] = {to_boost(crowd.boxes[i]), i};
    const Tree tree(items);
    find_pairs(tree, crowd, pairs);
    benchmark::DoNotOptimize(pairs.data());
  }
}

void with_kept_tree(benchmark::State& state) {
  Crowd crowd;
  Tree tree;
  Pairs pairs;
  for (std::uint32_t i = 0; i < count; ++i) tree.insert({to_boost(crowd.boxes[i]), i});
  for ([[maybe_unused]] auto tick : state) {
    const std::vector<vole::Rect> before = crowd.boxes;
    crowd.tick();
    pairs.clear();
    for (std::uint32_t i = 0; i < count; ++i) {
      tree.remove({to_boost(before[i]), i});
      tree.insert({to_boost(crowd.boxes[i]), i});
    }
    find_pairs(tree, crowd, pairs);
    benchmark::DoNotOptimize(pairs.data());
  }
}

// Things that ask nothing of each other, with one among them that is looked for: in a heap, and as far apart as they are elsewhere.
void unasked(benchmark::State& state, bool heap) {
  constexpr std::uint64_t seed = 1, robin = 2;
  Crowd crowd;
  std::vector<vole::PairRoles> roles(count, {.is = seed, .wants = robin});
  roles[count / 2] = {.is = robin, .wants = seed};
  if (heap)
    for (vole::Rect& box : crowd.boxes) box.at *= 0.01f;
  vole::PairFinder finder;
  Pairs pairs;
  for ([[maybe_unused]] auto tick : state) {
    pairs.clear();
    finder.find(crowd.boxes, roles, pairs);
    benchmark::DoNotOptimize(pairs.data());
  }
  state.counters["pairs"] = static_cast<double>(pairs.size());
}

BENCHMARK_CAPTURE(unasked, heap, true)->Name("a heap of 10000 boxes/vole");
BENCHMARK_CAPTURE(unasked, apart, false)->Name("a heap of 10000 boxes/as far apart");
BENCHMARK(with_strips)->Name("pairs of 10000 moving boxes/vole");
BENCHMARK(with_new_tree)->Name("pairs of 10000 moving boxes/a new R-tree");
BENCHMARK(with_kept_tree)->Name("pairs of 10000 moving boxes/a kept R-tree");

}  // namespace
