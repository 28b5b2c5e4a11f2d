// Boxes among tiles of every shape, against tiny steps; and how they walk, land and are let through.
#include <array>
#include <cmath>
#include <functional>
#include <limits>

#include "support.hpp"
#include "vole/physics/box_in_grid.hpp"
#include "vole/physics/collision_world.hpp"
#include "vole/physics/subpixel.hpp"

namespace {

using vole::BodyMoved;
using vole::CellForm;
using vole::CollisionBody;
using vole::CollisionWorld;
using vole::IVec2;
using vole::OneWay;
using vole::Rect;
using vole::Shape;
using vole::SolidGrid;
using vole::TileShape;
using vole::Vec2;

constexpr float lattice_step = 1.0f / 256;

// A cell that is not square is turned by half turns alone: otherwise it would not fit in.
CellForm random_form(vole::Random& chance, IVec2 cell) {
  const int quarters = cell.x == cell.y ? below(chance, 4) : 2 * below(chance, 2);
  if (chance.chance(0.2f)) {
    // A polygon of a tile's own.
    std::array<Vec2, 4> corners{chance.chance(0.5f) ? Vec2{0, 5} : Vec2{3, 2}, {13, 0}, {16, 9}, {7, 16}};
    for (Vec2& corner : corners) corner *= Vec2(cell) / 16.0f;
    return CellForm(Shape::polygon(corners), cell).turned(quarters);
  }
  const auto shape =
      static_cast<TileShape>(below(chance, static_cast<int>(vole::enum_names(TileShape()).size())));
  const CellForm form(shape, cell);
  return chance.chance(0.5f) ? form.turned(quarters) : form.mirrored();
}

SolidGrid random_grid(vole::Random& chance, IVec2 cells, float share) {
  const IVec2 cell = some_sides(chance);
  SolidGrid grid(cells, cell,
                 {chance.chance(0.5f), chance.chance(0.5f), chance.chance(0.5f), chance.chance(0.5f)});
  for (int y = 0; y < cells.y; ++y)
    for (int x = 0; x < cells.x; ++x)
      if (chance.chance(share)) grid.set({x, y}, random_form(chance, cell));
  return grid;
}

// How deep a box is in the shapes of the cells around it, looked at as polygons.
double depth(const SolidGrid& grid, const Rect& box) {
  const Vec2 middle = box.at + box.size * 0.5f;
  const Shape shape = Shape::box({box.at - middle, box.size});
  const IVec2 side = grid.cell();
  const auto cell_of = [](float at, int length) {
    return static_cast<int>(std::floor(at / static_cast<float>(length)));
  };
  double deepest = -1e9;
  for (int y = cell_of(box.top(), side.y) - 1; y <= cell_of(box.bottom(), side.y) + 1; ++y)
    for (int x = cell_of(box.left(), side.x) - 1; x <= cell_of(box.right(), side.x) + 1; ++x)
      if (const CellForm* form = grid.form(x, y))
        deepest =
            std::max(deepest, -gap_between(shape, middle, form->shape(), Vec2(IVec2{x, y} * side)).distance);
  return deepest;
}

Rect random_free_box(vole::Random& chance, const SolidGrid& grid) {
  while (true) {
    const Rect box{vole::on_lattice({chance.within(-20, static_cast<float>(grid.size().x)),
                                     chance.within(-20, static_cast<float>(grid.size().y))}),
                   vole::on_lattice({chance.within(0.5f, 30), chance.within(0.5f, 30)})};
    if (!grid.blocks(box)) return box;
  }
}

Vec2 random_motion(vole::Random& chance) {
  const float reach = chance.chance(0.7f) ? 24.0f : 400.0f;
  Vec2 motion{chance.within(-reach, reach), chance.within(-reach, reach)};
  if (chance.chance(0.2f)) motion.x = 0;
  if (chance.chance(0.2f)) motion.y = 0;
  if (chance.chance(0.1f)) motion.y = motion.x;
  if (chance.chance(0.1f)) motion.x = 2 * motion.y;
  return vole::on_lattice(motion);
}

float dot(Vec2 a, Vec2 b) {
  return a.x * b.x + a.y * b.y;
}

CollisionBody box_body(const Rect& box) {
  return {.at = box.at, .box = {{0, 0}, box.size}, .shapes = nullptr};
}

}  // namespace

TEST_CASE("among tiles of every shape a box stops where tiny steps first meet something") {
  vole::Random chance(31);
  int hits = 0, grazed = 0;
  for (int round = 0; round < cases(1500); ++round) {
    const SolidGrid grid = random_grid(chance, {20, 14}, chance.within(0.03f, 0.3f));
    const Rect box = random_free_box(chance, grid);
    const Vec2 motion = random_motion(chance);
    const vole::Contact contact = vole::sweep_box(grid, box, motion);
    CAPTURE(round, box.at.x, box.at.y, box.size.x, box.size.y, motion.x, motion.y, contact.at.x,
            contact.at.y);
    REQUIRE_FALSE(grid.blocks({contact.at, box.size}));
    REQUIRE(depth(grid, {contact.at, box.size}) < 1e-4);
    const double length = std::max(std::abs(motion.x), std::abs(motion.y));
    if (length == 0) continue;
    const Vec2 gone = contact.at - box.at;
    const double share =
        static_cast<double>(std::abs(motion.x) > std::abs(motion.y) ? gone.x / motion.x : gone.y / motion.y);
    // Near the straight line: a corner between two slopes may keep it a lattice step or two back.
    REQUIRE(std::abs(static_cast<double>(gone.x) - share * motion.x) < 0.03);
    REQUIRE(std::abs(static_cast<double>(gone.y) - share * motion.y) < 0.03);

    const int steps = static_cast<int>(length * 8) + 1;
    double stepped = 2;
    for (int i = 1; i <= steps && stepped > 1; ++i) {
      const double t = static_cast<double>(i) / steps;
      if (depth(grid, {box.at + motion * static_cast<float>(t), box.size}) > 0.01) stepped = t;
    }
    if (!contact.hit) {
      REQUIRE(stepped > 1);
      continue;
    }
    ++hits;
    REQUIRE(stepped > share - 0.05 / length);
    // What was hit is there: further against the normal is inside of it.
    const Vec2 deeper = contact.at - contact.normal * 0.05f;
    REQUIRE(depth(grid, {deeper - Vec2(0.01f), box.size + Vec2(0.02f)}) > 0);
    if (stepped > share + 0.5 / length) ++grazed;
  }
  CHECK(hits > cases(1500) / 4);
  CHECK(grazed < hits / 5);
}

TEST_CASE("a box that slides among tiles of every shape is never inside one") {
  vole::Random chance(32);
  for (int round = 0; round < cases(1500); ++round) {
    const SolidGrid grid = random_grid(chance, {20, 14}, 0.25f);
    CollisionWorld world;
    world.set_tiles(&grid);
    CollisionBody body = box_body(random_free_box(chance, grid));
    for (int leg = 0; leg < 6; ++leg) {
      const Vec2 motion = random_motion(chance);
      const int way = below(chance, 3);
      const BodyMoved moved = way == 0   ? world.slide(body, motion)
                              : way == 1 ? world.fly(body, motion)
                                         : world.walk(body, motion.x);
      CAPTURE(round, leg, way, moved.at.x, moved.at.y, body.at.x, body.at.y, body.box.size.x, body.box.size.y,
              motion.x, motion.y);
      body.at = moved.at;
      REQUIRE_FALSE(grid.blocks(body.bounds()));
      REQUIRE(depth(grid, body.bounds()) < 1e-4);
      // What the velocity keeps goes into nothing that held the body last.
      if (moved.held()) {
        const Vec2 kept = moved.kept(motion);
        REQUIRE(dot(kept, moved.normals[moved.normal_count - 1]) >
                -0.01f * std::hypot(motion.x, motion.y) - 0.001f);
      }
    }
  }
}

namespace {

// The ground as a row of columns: how high each begins and ends, in half cells from the bottom.
struct Terrain {
  static constexpr int columns = 60, rows = 16;
  SolidGrid grid{{columns, rows}, 16, {true, true, false, false}};
  std::vector<float> heights;  // at the edges of the columns, in pixels from the bottom

  explicit Terrain(vole::Random& chance) {
    int half_cells = 8;
    heights.push_back(static_cast<float>(half_cells) * 8);
    for (int x = 0; x < columns; ++x) {
      int change = x < 3 || x > columns - 4 ? 0 : below(chance, 5) - 2;
      put_column(x, half_cells, change);
      half_cells += change;
      heights.push_back(static_cast<float>(half_cells) * 8);
      half_cells = std::clamp(half_cells, 4, 24);
      if (heights.back() != static_cast<float>(half_cells) * 8)
        heights.back() = static_cast<float>(half_cells) * 8;
    }
  }

  void put_column(int x, int& from, int& change) {
    // Slopes of two half cells begin at whole cells, so that one tile holds them.
    if (std::abs(change) == 2 && from % 2 != 0) change = 0;
    if (from + change < 4 || from + change > 24) change = 0;
    const int top = std::max(from, from + change);
    const int cell = (top + 1) / 2 - 1;  // that the surface is in, from the bottom
    for (int below = 0; below < cell; ++below) grid.set({x, rows - 1 - below}, true);
    grid.set({x, rows - 1 - cell}, form_of(from, change));
  }

  static CellForm form_of(int from, int change) {
    if (change == 0) return CellForm(from % 2 == 0 ? TileShape::full : TileShape::lower_half, 16);
    if (change == 2) return CellForm(TileShape::rise, 16);
    if (change == -2) return CellForm(TileShape::fall, 16);
    if (change == 1)
      return CellForm(from % 2 == 0 ? TileShape::gentle_rise_low : TileShape::gentle_rise_high, 16);
    return CellForm(from % 2 == 0 ? TileShape::gentle_fall_high : TileShape::gentle_fall_low, 16);
  }

  double surface(double x) const {
    const auto column =
        static_cast<std::size_t>(std::clamp(x / 16, 0.0, static_cast<double>(columns) - 1e-9));
    const double share = x / 16 - static_cast<double>(column);
    const double height =
        static_cast<double>(heights[column]) * (1 - share) + static_cast<double>(heights[column + 1]) * share;
    return rows * 16 - height;
  }
  // Where the bottom of a box rests: the highest of what is below it.
  double rest(double left, double right) const {
    double top = std::min(surface(left), surface(right));
    for (int edge = static_cast<int>(std::ceil(left / 16)); edge * 16 <= right; ++edge)
      top = std::min(top, surface(edge * 16.0));
    return top;
  }
};

}  // namespace

TEST_CASE("walking keeps to the ground, at the speed along it that was asked, over flats and slopes") {
  vole::Random chance(33);
  for (int round = 0; round < cases(60); ++round) {
    const Terrain terrain(chance);
    CollisionWorld world;
    world.set_tiles(&terrain.grid);
    const Vec2 size = vole::on_lattice({chance.within(2, 14), chance.within(6, 14)});
    CollisionBody body = box_body({{20, 0}, size});
    body.at.y =
        vole::on_lattice({0, static_cast<float>(terrain.rest(20, 20 + static_cast<double>(size.x)))}).y -
        size.y;
    const float speed = chance.within(0.2f, 9);
    float direction = 1, kept = 0;
    int turns = 0;
    double asked = 0, walked = 0;
    for (int tick = 0; tick < 1500 && turns < 6; ++tick) {
      const Vec2 before = body.at;
      const float length = direction * speed + kept;
      const BodyMoved moved = world.walk(body, length);
      CAPTURE(round, tick, size.x, size.y, before.x, before.y, speed, moved.at.x, moved.at.y);
      body.at = moved.at;
      kept = moved.rest;
      REQUIRE(moved.below.any);
      const Rect box = body.bounds();
      const double rest = terrain.rest(static_cast<double>(box.left()), static_cast<double>(box.right()));
      // On the ground: at most a lattice step above, and never inside.
      REQUIRE(static_cast<double>(box.bottom()) <= rest + 1e-6);
      REQUIRE(static_cast<double>(box.bottom()) > rest - 2.01 * lattice_step);
      // Along the surface, walked in small steps of the box's own.
      if (!moved.left.any && !moved.right.any) {
        double length_gone = 0;
        constexpr int parts = 400;
        double last_y = terrain.rest(static_cast<double>(before.x),
                                     static_cast<double>(before.x) + static_cast<double>(size.x));
        for (int i = 1; i <= parts; ++i) {
          const double x =
              static_cast<double>(before.x) + static_cast<double>(box.left() - before.x) * i / parts;
          const double y = terrain.rest(x, x + static_cast<double>(size.x));
          length_gone += std::hypot(static_cast<double>(box.left() - before.x) / parts, y - last_y);
          last_y = y;
        }
        asked += std::abs(static_cast<double>(direction * speed));
        walked += length_gone;
        REQUIRE(std::abs(length_gone - std::abs(static_cast<double>(length) - static_cast<double>(kept))) <
                0.03 + 0.003 * static_cast<double>(speed));
      } else {
        direction = -direction;
        kept = 0;
        ++turns;
      }
      if (chance.chance(0.01f)) direction = -direction;
    }
    REQUIRE(std::abs(walked - asked) < 0.01 * asked + 1);
  }
}

TEST_CASE("standing on a slope does not creep, and what is too steep is no ground") {
  SolidGrid grid({8, 4}, 16);
  for (int x = 0; x < 8; ++x) grid.set({x, 3}, true);
  grid.set({3, 2}, CellForm(TileShape::rise, 16));
  const Vec2 steep[] = {{0, 16}, {4, 0}, {16, 0}, {16, 16}};
  grid.set({5, 2}, CellForm(Shape::polygon(steep), 16));
  CollisionWorld world;
  world.set_tiles(&grid);
  CollisionBody body = box_body({{45, 20}, {8, 8}});
  const BodyMoved landed = world.fly(body, {0, 40});
  CHECK(landed.below.any);
  CHECK(landed.below.normal.x == Approx(-std::sqrt(0.5)));
  body.at = landed.at;
  for (int tick = 0; tick < 100; ++tick) {
    const BodyMoved stays = world.walk(body, 0);
    CHECK(stays.at == body.at);
    CHECK(stays.below.any);
  }
  CHECK_FALSE(world.ground(body, {.steepest = 40}).any);
  const BodyMoved slid = world.fly(box_body({{75, 20}, {8, 8}}), {0, 14});
  CHECK(slid.right.any);
  CHECK(slid.at.x < 75);
  CHECK_FALSE(slid.below.any);
  CHECK_FALSE(world.ground(box_body({slid.at, {8, 8}})).any);
}

TEST_CASE("what is one-way holds on its side alone, and lets go when asked") {
  for (const OneWay side : {OneWay::up, OneWay::down, OneWay::left, OneWay::right}) {
    SolidGrid grid({5, 5}, 16, {false, false, false, false});
    CellForm plank(TileShape::full, 16);
    plank.one_way = side;
    grid.set({2, 2}, plank);
    CollisionWorld world;
    world.set_tiles(&grid);
    const std::pair<Vec2, OneWay> ways[] = {
        {{0, -50}, OneWay::up}, {{0, 50}, OneWay::down}, {{-50, 0}, OneWay::left}, {{50, 0}, OneWay::right}};
    for (const auto& [from, over] : ways) {
      const CollisionBody body = box_body({Vec2{36, 36} + from, {8, 8}});
      CHECK(world.slide(body, -2.0f * from).held() == (over == side));
      CHECK_FALSE(world.slide(body, -2.0f * from, {.through_one_way = true}).held());
      CHECK(grid.blocks({{36, 36}, {8, 8}}));
      CHECK_FALSE(grid.blocks({{36, 36}, {8, 8}}, false));
      // From within it may leave to everywhere.
      CHECK_FALSE(world.slide(box_body({{36, 36}, {8, 8}}), from).held());
    }
  }
}

TEST_CASE("brushing past a plank does not put a body on it, and walking off and on is without a step") {
  SolidGrid grid({12, 5}, 16, {false, false, false, false});
  CellForm plank(TileShape::upper_half, 16);
  plank.one_way = OneWay::up;
  for (int x = 3; x < 9; ++x) grid.set({x, 2}, plank);
  CollisionWorld world;
  world.set_tiles(&grid);
  CollisionBody body = box_body({{20, 30}, {8, 8}});
  const BodyMoved past = world.fly(body, {40, -2});
  CHECK(past.at == Vec2{60, 28});
  CHECK_FALSE(past.below.any);
  body.at = {60, 24};
  CHECK(world.ground(body).any);
  CHECK_FALSE(world.ground(body, {.through_one_way = true}).any);
  CHECK(world.walk(body, 30).at == Vec2{90, 24});
}

TEST_CASE("a corner that holds a body by little is gone around where that is asked for") {
  SolidGrid grid({9, 9}, 16, {false, false, false, false});
  grid.set({4, 4}, true);
  CollisionWorld world;
  world.set_tiles(&grid);
  for (const float overlap : {1.0f, 3.0f, 5.0f}) {
    CAPTURE(overlap);
    const bool slips = overlap <= 4;
    const auto moved = [&](Vec2 at, Vec2 by) {
      return world.slide(box_body({at, {10, 10}}), by, {.slip = 4});
    };
    // Jumping up under its left edge, and its right.
    CHECK(moved({54 + overlap, 90}, {0, -40}).held() != slips);
    CHECK(moved({80 - overlap, 90}, {0, -40}).held() != slips);
    // And walking beside it, seen from above.
    CHECK(moved({20, 54 + overlap}, {90, 0}).held() != slips);
    CHECK(moved({100, 80 - overlap}, {-90, 0}).held() != slips);
    // No faster than it goes anyway.
    const Vec2 slow = moved({54 + overlap, 80}, {0, -0.5f}).at - Vec2{54 + overlap, 80};
    CHECK(std::hypot(slow.x, slow.y) <= 0.5f);
    CHECK(world.slide(box_body({{54 + overlap, 90}, {10, 10}}), {0, -40}).held());
  }
  // Not into what is beside it.
  grid.set({3, 4}, true);
  CHECK(world.slide(box_body({{63, 90}, {10, 10}}), {0, -40}, {.slip = 4}).held());
}

TEST_CASE("of merged tiles those edges alone are left that border on something open, point by point") {
  vole::Random chance(55);
  int hidden = 0, left = 0;
  for (int round = 0; round < cases(60); ++round) {
    SolidGrid grid({10, 8}, 16, {false, false, false, false});
    for (int y = 0; y < 8; ++y)
      for (int x = 0; x < 10; ++x)
        if (chance.chance(0.6f)) {
          const CellForm form(static_cast<TileShape>(chance.chance(0.5f) ? 0 : below(chance, 11)), 16);
          grid.set({x, y}, (chance.chance(0.5f) ? form.mirrored() : form).turned(below(chance, 4)));
        }
    const auto solid_at = [&grid](Vec2 point) {
      const vole::IVec2 cell(std::floor(point.x / 16), std::floor(point.y / 16));
      const CellForm* const form = grid.form(cell.x, cell.y);
      return form && cast_ray(point, {0, 0}, form->shape(), Vec2(cell * 16)).hit;
    };
    for (int y = 0; y < 8; ++y)
      for (int x = 0; x < 10; ++x) {
        const CellForm* const form = grid.form(x, y);
        if (!form) continue;
        const std::span<const Vec2> corners = form->shape().corners();
        for (std::size_t edge = 0; edge < corners.size(); ++edge) {
          const Vec2 from = corners[edge], way = corners[(edge + 1) % corners.size()] - from;
          const Vec2 outward = Vec2{way.y, -way.x} * (0.01f / std::hypot(way.x, way.y));
          bool all_solid = true;
          for (float along = 1.0f / 64; along < 1; along += 1.0f / 32)
            all_solid = all_solid && solid_at(Vec2(vole::IVec2{x, y} * 16) + from + way * along + outward);
          CAPTURE(round, x, y, edge, from.x, from.y, way.x, way.y);
          REQUIRE(grid.edge_hidden({x, y}, edge) == all_solid);
          ++(all_solid ? hidden : left);
        }
      }
  }
  CHECK(hidden > cases(60) * 20);
  CHECK(left > cases(60) * 20);
}

TEST_CASE("a full tile beside a part of one hides no more of it than it touches") {
  SolidGrid grid({4, 4}, 16);
  grid.set({1, 1}, CellForm(TileShape::lower_half, 16));
  grid.set({2, 1}, true);
  CHECK(grid.hidden(1, 1, vole::side_right));
  CHECK_FALSE(grid.hidden(2, 1, vole::side_left));
  CHECK_FALSE(grid.hidden(1, 1, vole::side_top));
  grid.set({1, 1}, CellForm(TileShape::rise, 16));
  CHECK(grid.hidden(2, 1, vole::side_left));
  CHECK_FALSE(grid.hidden(1, 1, vole::side_left));
  CellForm plank = CellForm::full(16);
  plank.one_way = OneWay::up;
  grid.set({1, 1}, plank);
  CHECK_FALSE(grid.hidden(2, 1, vole::side_left));
}

TEST_CASE("on the largest roofs a walker goes as far as it walks, and stays on them") {
  vole::Random chance(91);
  for (int round = 0; round < cases(40); ++round) {
    // A ridge somewhere, and two slopes down to the ends of what a shape may be.
    const float far = Shape::furthest;
    const Vec2 ridge{std::round(chance.within(-far / 2, far / 2)), std::round(chance.within(-far, -far / 2))};
    const std::array<Vec2, 3> left{Vec2{-far, far}, ridge, {ridge.x, far}};
    const std::array<Vec2, 3> right{Vec2{ridge.x, far}, ridge, {far, far}};
    CollisionWorld world;
    const auto shapes = [](const std::array<Vec2, 3>& corners) {
      return std::make_shared<const std::vector<Shape>>(std::vector<Shape>{Shape::polygon(corners)});
    };
    const Vec2 stands{chance.within(-50000, 50000),
                      chance.within(-50000, 50000)};  // positions are exact up to 65,536
    for (vole::BodyId id = 0; id < 2; ++id) {
      CollisionBody roof;
      roof.at = vole::on_lattice(stands);
      roof.shapes = shapes(id == 0 ? left : right);
      world.put(id, roof);
    }
    const auto height = [&](float x) {
      const double slope = x < ridge.x ? (static_cast<double>(ridge.y) - far) / (ridge.x + far)
                                       : (far - static_cast<double>(ridge.y)) / (far - ridge.x);
      return static_cast<double>(ridge.y) + slope * (x - ridge.x);
    };
    CollisionBody walker;
    walker.box = {{-4, -8}, {8, 8}};
    const float start = ridge.x + chance.within(-300, 300);
    walker.at = vole::on_lattice(stands + Vec2{start, static_cast<float>(height(start)) - 60});
    vole::MoveRules rules;
    rules.steepest = 85;
    walker.at = world.fly(walker, {0, 120}, rules).at;
    for (int tick = 0; tick < 100; ++tick) {
      const Vec2 before = walker.at;
      const BodyMoved moved = world.walk(walker, start < ridge.x ? 7.5f : -7.5f, rules);
      CAPTURE(round, tick, before.x - stands.x, ridge.x);
      walker.at = moved.at;
      const Vec2 gone = walker.at - before;
      REQUIRE(std::hypot(gone.x, gone.y) < 7.6f);
      REQUIRE(moved.below.any);
      // The lower of its corners is on the roof, to what a float and the lattice can say.
      const float x = walker.at.x - stands.x, y = walker.at.y - stands.y;
      const double roof = std::min(x - 4 < ridge.x && x + 4 > ridge.x ? static_cast<double>(ridge.y) : 1e9,
                                   std::min(height(x - 4), height(x + 4)));
      REQUIRE(std::abs(static_cast<double>(y) - roof) < 0.1);
    }
  }
}

TEST_CASE("who walks by any number goes as far as there is ground, and ends somewhere") {
  CollisionWorld world;
  CollisionBody ground;
  ground.at = {0, 0};
  ground.box = {{-100, 0}, {200, 8}};
  world.put(0, ground);
  CollisionBody walker;
  walker.box = {{-4, -8}, {8, 8}};
  walker.at = {0, 0};
  for (const float length :
       {5e33f, -5e33f, std::numeric_limits<float>::infinity(), -std::numeric_limits<float>::infinity(),
        std::numeric_limits<float>::quiet_NaN()}) {
    const BodyMoved moved = world.walk(walker, length);
    CAPTURE(length, moved.at.x, moved.at.y);
    CHECK(std::isfinite(moved.at.x));
    CHECK(std::isfinite(moved.at.y));
    CHECK(std::isfinite(moved.rest));
    if (!std::isfinite(length))
      CHECK(moved.at == walker.at);
    else
      CHECK((length > 0 ? moved.at.x > 90 : moved.at.x < -90));
  }
}
