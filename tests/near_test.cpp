// The coarse look against looking at every box.
#include <algorithm>
#include <limits>
#include <map>

#include "support.hpp"
#include "vole/physics/bounds_grid.hpp"
#include "vole/physics/pair_finder.hpp"

namespace {

using vole::BoundsGrid;
using vole::Rect;
using Ids = std::vector<std::uint32_t>;
using Pairs = std::vector<vole::IndexPair>;

bool share_a_point(const Rect& a, const Rect& b) {
  return a.left() <= b.right() && b.left() <= a.right() && a.top() <= b.bottom() && b.top() <= a.bottom();
}

// Boxes of all sizes, many of them flush with each other.
Rect random_box(vole::Random& chance) {
  const float reach = chance.chance(0.9f) ? 400.0f : 3e6f;
  const float largest = chance.chance(0.8f) ? 24.0f : chance.chance(0.9f) ? 1000.0f : 3e7f;
  Rect box{{chance.within(-reach, reach), chance.within(-reach, reach)},
           {chance.within(0, largest), chance.within(0, largest)}};
  if (chance.chance(0.4f)) box = {{std::round(box.at.x / 16) * 16, std::round(box.at.y / 16) * 16}, {16, 16}};
  if (chance.chance(0.05f)) box.size = {0, 0};
  return box;
}

Ids found(const BoundsGrid& grid, const Rect& area) {
  Ids ids{99};  // what is there stays
  grid.find(area, ids);
  REQUIRE(ids.front() == 99);
  ids.erase(ids.begin());
  return ids;
}

Pairs all_pairs(const std::vector<Rect>& boxes) {
  Pairs all;
  for (std::uint32_t a = 0; a < boxes.size(); ++a)
    for (std::uint32_t b = a + 1; b < boxes.size(); ++b)
      if (share_a_point(boxes[a], boxes[b])) all.emplace_back(a, b);
  return all;
}

}  // namespace

TEST_CASE("the grid finds what looking at every box finds, whatever came, moved and left") {
  vole::Random chance(81);
  for (int game = 0; game < cases(20); ++game) {
    BoundsGrid grid;
    std::map<std::uint32_t, Rect> plain;
    const std::uint32_t ids = 1 + chance.below(200);
    for (int step = 0; step < 300; ++step) {
      CAPTURE(game, step);
      const std::uint32_t id = chance.below(ids);
      if (chance.chance(0.2f)) {
        grid.remove(id);
        plain.erase(id);
      } else if (chance.chance(0.5f) && plain.count(id) != 0) {
        plain[id].at += vole::Vec2{chance.within(-20, 20), chance.within(-20, 20)};
        grid.put(id, plain[id]);
      } else {
        plain[id] = random_box(chance);
        grid.put(id, plain[id]);
      }
      REQUIRE(grid.size() == plain.size());
      Ids wanted;
      const Rect area = random_box(chance);
      for (const auto& [other, box] : plain) {
        REQUIRE((grid.has(other) && grid.bounds(other) == box));
        if (share_a_point(area, box)) wanted.push_back(other);
      }
      REQUIRE(found(grid, area) == wanted);
    }
    const std::uint32_t kept = chance.below(ids);
    grid.keep_first(kept);
    for (std::uint32_t id = 0; id < ids; ++id) REQUIRE(grid.has(id) == (id < kept && plain.count(id) != 0));
    grid.clear();
    REQUIRE((grid.size() == 0 && found(grid, {{-1e7f, -1e7f}, {2e7f, 2e7f}}).empty()));
  }
}

TEST_CASE("pairs that touch are found as by comparing all with all, wherever and however large they are") {
  vole::Random chance(83);
  vole::PairFinder finder;
  std::size_t most = 0;
  for (int i = 0; i < cases(400); ++i) {
    CAPTURE(i);
    std::vector<Rect> boxes(chance.below(200));
    const bool alike = chance.chance(0.3f), crowded = chance.chance(0.3f);
    for (Rect& box : boxes) {
      box = random_box(chance);
      if (alike) box.size = {16, 16};
      if (crowded) box.at *= 0.1f;
      if (chance.chance(0.02f)) box.size.y = 1e5f;  // much higher than the others
      if (chance.chance(0.02f)) box.at.x = std::numeric_limits<float>::quiet_NaN();
    }
    Pairs found{{7, 9}};  // what is there stays
    finder.find(boxes, found);
    REQUIRE(found.front() == vole::IndexPair(7, 9));
    found.erase(found.begin());
    REQUIRE(found == all_pairs(boxes));
    most = std::max(most, found.size());
  }
  CHECK(most > 1000);
}

TEST_CASE("of boxes with roles those pairs are found that want and notice each other") {
  vole::Random chance(84);
  vole::PairFinder finder;
  const auto some_bits = [&chance] {
    return std::uint64_t{1} << chance.below(4) | std::uint64_t{chance.below(3)};
  };
  std::size_t found_pairs = 0, others = 0;
  for (int i = 0; i < cases(400); ++i) {
    CAPTURE(i);
    std::vector<vole::PairRoles> kinds(1 + chance.below(5));
    for (vole::PairRoles& kind : kinds) kind = {some_bits(), some_bits(), some_bits(), some_bits()};
    std::vector<Rect> boxes(chance.below(150));
    std::vector<vole::PairRoles> roles;
    for (Rect& box : boxes) {
      box = random_box(chance);
      if (chance.chance(0.5f)) box.at *= 0.1f;
      if (chance.chance(0.02f)) box.size.y = 1e5f;
      roles.push_back(kinds[chance.below(static_cast<std::uint32_t>(kinds.size()))]);
    }
    Pairs wanted;
    for (const vole::IndexPair& pair : all_pairs(boxes)) {
      const vole::PairRoles &a = roles[pair.first], &b = roles[pair.second];
      const bool asked = (a.is & b.wants) != 0 || (b.is & a.wants) != 0;
      const bool noticed = (a.category & b.notices) != 0 && (b.category & a.notices) != 0;
      if (asked && noticed)
        wanted.push_back(pair);
      else
        ++others;
    }
    Pairs found;
    finder.find(boxes, roles, found);
    REQUIRE(found == wanted);
    found_pairs += found.size();
  }
  CHECK(found_pairs > 1000);
  CHECK(others > 1000);
}

TEST_CASE("boxes without finite numbers are in no grid, and moves within a cell allocate nothing") {
  const float nan = std::numeric_limits<float>::quiet_NaN(),
              infinite = std::numeric_limits<float>::infinity();
  BoundsGrid grid;
  for (const Rect& box : {Rect{{nan, 0}, {1, 1}}, Rect{{0, 0}, {1, infinite}}, Rect{{-infinite, 0}, {1, 1}},
                          Rect{{3e38f, 0}, {3e38f, 1}}}) {
    grid.put(3, {{0, 0}, {1, 1}});
    CHECK(grid.has(3));
    grid.put(3, box);
    CHECK_FALSE(grid.has(3));
    CHECK(found(grid, box).empty());
  }
  CHECK_FALSE(grid.has(1000));
  grid.remove(1000);
  CHECK(grid.size() == 0);

  vole::Random chance(82);
  for (std::uint32_t id = 0; id < 500; ++id) grid.put(id, random_box(chance));
  std::vector<Rect> boxes(500);
  vole::PairFinder finder;
  Pairs all;
  Ids ids;
  const auto frame = [&] {
    for (std::uint32_t id = 0; id < 500; ++id) {
      boxes[id] = grid.bounds(id).moved_by({0.25f, -0.25f});
      grid.put(id, boxes[id]);
    }
    all.clear();
    ids.clear();
    finder.find(boxes, all);
    grid.find({{-100, -100}, {200, 200}}, ids);
  };
  for (int i = 0; i < 100; ++i) frame();
  const std::int64_t before = allocations_so_far();
  frame();
  if (allocations_are_counted()) CHECK(allocations_so_far() == before);
}

TEST_CASE("a million boxes in one spot are no trouble to find") {
  BoundsGrid grid;
  for (std::uint32_t id = 0; id < 1'000'000; ++id) grid.put(id, {{5, 5}, {1, 1}});
  CHECK(found(grid, {{0, 0}, {10, 10}}).size() == 1'000'000);
  CHECK(found(grid, {{20, 0}, {10, 10}}).empty());
  for (std::uint32_t id = 0; id < 1'000'000; ++id) grid.remove(id);
  CHECK(grid.size() == 0);
}
