// The swept test against one that takes tiny steps.
#include <cmath>

#include "support.hpp"
#include "vole/physics/box_in_grid.hpp"
#include "vole/physics/subpixel.hpp"

namespace {

using vole::Rect;
using vole::SolidGrid;
using vole::Vec2;

SolidGrid random_grid(vole::Random& chance, vole::IVec2 cells, vole::IVec2 cell, float share) {
  SolidGrid grid(cells, cell,
                 {chance.chance(0.5f), chance.chance(0.5f), chance.chance(0.5f), chance.chance(0.5f)});
  for (int y = 0; y < cells.y; ++y)
    for (int x = 0; x < cells.x; ++x) grid.set({x, y}, chance.chance(share));
  return grid;
}

Rect random_free_box(vole::Random& chance, const SolidGrid& grid) {
  const Vec2 cell(grid.cell());
  while (true) {
    const Vec2 size{chance.within(0.5f, 40), chance.within(0.5f, 40)};
    Rect box{vole::on_lattice({chance.within(-30, static_cast<float>(grid.size().x)),
                               chance.within(-30, static_cast<float>(grid.size().y))}),
             vole::on_lattice(size)};
    // Now and then flush with the lines of the grid, as bodies at rest are.
    if (chance.chance(0.4f)) box.at.y = std::floor(box.at.y / cell.y) * cell.y + cell.y - box.size.y;
    if (chance.chance(0.2f)) box.at.x = std::floor(box.at.x / cell.x) * cell.x;
    if (!grid.blocks(box)) return box;
  }
}

// Where along the motion (in [0, 1]) a box first reaches into something solid, looked for in steps of 1/64
// pixel; more than 1 when it never does.
double first_overlap(const SolidGrid& grid, const Rect& box, Vec2 motion) {
  const double length = std::max(std::abs(motion.x), std::abs(motion.y));
  const auto steps = static_cast<std::int64_t>(std::ceil(length * 64));
  const vole::IVec2 size = grid.cell();
  const auto cell_of = [](double at, int side) { return static_cast<std::int64_t>(std::floor(at / side)); };
  for (std::int64_t i = 1; i <= steps; ++i) {
    const double t = static_cast<double>(i) / static_cast<double>(steps);
    const double left = static_cast<double>(box.left()) + static_cast<double>(motion.x) * t;
    const double top = static_cast<double>(box.top()) + static_cast<double>(motion.y) * t;
    const double right = left + static_cast<double>(box.size.x),
                 bottom = top + static_cast<double>(box.size.y);
    for (std::int64_t y = cell_of(top, size.y); static_cast<double>(y * size.y) < bottom; ++y)
      for (std::int64_t x = cell_of(left, size.x); static_cast<double>(x * size.x) < right; ++x)
        if (grid.solid(x, y)) return t;
  }
  return 2;
}

Vec2 random_motion(vole::Random& chance) {
  const float reach = chance.chance(0.5f) ? 24.0f : 1600.0f;  // 1600: a hundred tiles in one tick
  Vec2 motion{chance.within(-reach, reach), chance.within(-reach, reach)};
  if (chance.chance(0.2f)) motion.x = 0;
  if (chance.chance(0.2f)) motion.y = 0;
  if (chance.chance(0.1f)) motion.y = motion.x;  // through the corners of cells
  return vole::on_lattice(motion);
}

}  // namespace

TEST_CASE("a swept box stops where tiny steps first meet something, at any speed") {
  vole::Random chance(21);
  int hits = 0;
  int grazed = 0;
  for (int round = 0; round < 6000; ++round) {
    const SolidGrid grid = random_grid(chance, {24, 18}, some_sides(chance), chance.within(0.02f, 0.3f));
    const Rect box = random_free_box(chance, grid);
    const Vec2 motion = random_motion(chance);
    const vole::Contact contact = vole::sweep_box(grid, box, motion);
    CAPTURE(round, box.at.x, box.at.y, box.size.x, box.size.y, motion.x, motion.y, contact.hit);

    // Never inside anything, and on the straight line.
    REQUIRE_FALSE(grid.blocks({contact.at, box.size}));
    const double length = std::max(std::abs(motion.x), std::abs(motion.y));
    const Vec2 gone = contact.at - box.at;
    if (length > 0) {
      const double share = (std::abs(motion.x) > std::abs(motion.y) ? gone.x / motion.x : gone.y / motion.y);
      REQUIRE(std::abs(static_cast<double>(gone.x) - share * motion.x) < 0.01);
      REQUIRE(std::abs(static_cast<double>(gone.y) - share * motion.y) < 0.01);

      const double stepped = first_overlap(grid, box, motion);
      const double slack = 1.5 / 64 / length;
      if (contact.hit) {
        ++hits;
        // Tiny steps may jump over a corner that the sweep touches by less than a step; never the other way
        // round.
        REQUIRE(stepped > share - slack);
        // What was hit is really there: a little further along the normal is inside it. Across the normal the
        // exact spot lies between two points of the lattice, or the box is just about to pass a corner, so a
        // box that is a lattice step wider on both sides is looked at.
        const Vec2 across = contact.normal.x != 0 ? Vec2{0, 1} : Vec2{1, 0};
        const Rect further{contact.at - (Vec2(contact.normal) + across) * (1.0f / 256),
                           box.size + across * (2.0f / 256)};
        REQUIRE(grid.blocks(further));
        if (stepped > share + slack) ++grazed;
      } else {
        REQUIRE(stepped > 1);
      }
    }
  }
  CHECK(hits > 2000);
  CHECK(grazed < hits / 50);
}

TEST_CASE("a moved box slides, and ends flush and free") {
  vole::Random chance(22);
  for (int round = 0; round < 5000; ++round) {
    const SolidGrid grid = random_grid(chance, {24, 18}, some_sides(chance), 0.2f);
    const Rect box = random_free_box(chance, grid);
    const Vec2 motion = random_motion(chance);
    const vole::Moved moved = vole::move_box(grid, box, motion);
    CAPTURE(round, box.at.x, box.at.y, motion.x, motion.y);
    REQUIRE_FALSE(grid.blocks({moved.at, box.size}));
    const auto one_further = [&](float x, float y) {
      return grid.blocks({moved.at + Vec2{x, y} / 256.0f, box.size});
    };
    // A direction that was not blocked is used up whole.
    if (!moved.left && !moved.right) REQUIRE(moved.at.x == box.at.x + motion.x);
    if (!moved.above && !moved.below) REQUIRE(moved.at.y == box.at.y + motion.y);
    // The last contact of each direction is still touched unless the slide left it behind; with only one, it
    // is.
    const int contacts = moved.left + moved.right + moved.above + moved.below;
    if (contacts == 1 && (motion.x == 0 || motion.y == 0))
      REQUIRE(one_further(static_cast<float>(moved.right - moved.left),
                          static_cast<float>(moved.below - moved.above)));
  }
}

TEST_CASE("no seam between tiles is felt by a body that slides over them") {
  vole::Random chance(23);
  SolidGrid floor({200, 4}, 16);
  for (int x = 0; x < 200; ++x) floor.set({x, 2}, true);
  for (int round = 0; round < 2000; ++round) {
    const Vec2 size = vole::on_lattice({chance.within(1, 30), chance.within(1, 30)});
    const Rect box{{vole::on_lattice({chance.within(100, 1000), 0}).x, 32 - size.y}, size};
    // Pressed down while moving along, as gravity does.
    const Vec2 motion = vole::on_lattice({chance.within(-90, 1600), chance.within(0, 40)});
    const vole::Moved moved = vole::move_box(floor, box, motion);
    REQUIRE(moved.at == Vec2{box.at.x + motion.x, 32 - size.y});
    REQUIRE_FALSE(moved.left);
    REQUIRE_FALSE(moved.right);
  }
}

TEST_CASE("a wall of a single cell stops anything") {
  SolidGrid grid({3000, 3}, 1, {});
  for (int y = 0; y < 3; ++y) grid.set({1500, y}, true);
  for (float speed = 1; speed < 2700; speed *= 1.7f) {
    const vole::Moved moved = vole::move_box(grid, {{1400 - speed / 2, 1}, {1, 1}}, {100 + speed, 0});
    CHECK(moved.right);
    CHECK(moved.at.x == 1499);
  }
}

TEST_CASE("numbers that are none do no harm") {
  SolidGrid grid({4, 4}, 16);
  const float nan = std::nanf("");
  for (const float bad : {nan, 1e30f, -1e30f, HUGE_VALF}) {
    const vole::Moved moved = vole::move_box(grid, {{20, 20}, {8, 8}}, {bad, bad});
    CHECK(std::isfinite(moved.at.x));
    CHECK(std::isfinite(vole::move_box(grid, {{bad, bad}, {bad, bad}}, {5, 5}).at.y));
  }
}

TEST_CASE("two moving boxes meet when they overlap at some moment") {
  vole::Random chance(24);
  int met = 0;
  for (int i = 0; i < cases(4000); ++i) {
    CAPTURE(i);
    const auto box = [&chance] {
      const Rect any{{chance.within(-40, 40), chance.within(-40, 40)},
                     {chance.within(1, 20), chance.within(1, 20)}};
      return chance.chance(0.5f) ? any : Rect{{std::round(any.at.x), std::round(any.at.y)}, {8, 8}};
    };
    const auto motion = [&chance] {
      return Vec2{chance.chance(0.2f) ? 0 : chance.within(-80, 80),
                  chance.chance(0.2f) ? 0 : chance.within(-80, 80)};
    };
    const Rect a = box(), b = box();
    const Vec2 a_motion = motion(), b_motion = chance.chance(0.1f) ? a_motion : motion();
    bool overlap = false, nearly = false;
    for (int step = 0; step <= 1024; ++step) {
      const float share = static_cast<float>(step) / 1024;
      const Rect a_then = a.moved_by(a_motion * share), b_then = b.moved_by(b_motion * share);
      const Rect both = a_then.shared_with(b_then);
      overlap = overlap || (both.size.x > 0.001f && both.size.y > 0.001f);
      nearly = nearly || Rect{a_then.at - Vec2(0.25f), a_then.size + Vec2(0.5f)}.overlaps(b_then);
    }
    const bool meet = vole::boxes_meet(a, a_motion, b, b_motion);
    if (overlap) REQUIRE(meet);
    if (meet) REQUIRE(nearly);
    REQUIRE(vole::boxes_meet(b, b_motion, a, a_motion) == meet);
    met += meet;
  }
  CHECK(met > cases(4000) / 10);
  CHECK_FALSE(vole::boxes_meet({{0, 0}, {8, 8}}, {0, 0}, {{8, 0}, {8, 8}}, {0, 50}));
  CHECK_FALSE(vole::boxes_meet({{0, 0}, {8, 8}}, {0, 0}, {{8, 0}, {8, 8}}, {50, 0}));
  CHECK(vole::boxes_meet({{0, 0}, {8, 8}}, {0, 0}, {{80, 0}, {8, 8}}, {-160, 0}));
}
