// Bodies of all shapes among tiles and each other: moved, and asked for, against plain ways of looking.
#include <algorithm>
#include <cmath>
#include <numeric>

#include "flight.hpp"
#include "support.hpp"
#include "vole/physics/collision_world.hpp"
#include "vole/physics/subpixel.hpp"

namespace {

using vole::BodyMoved;
using vole::BodyOrCell;
using vole::BodyUse;
using vole::CastHit;
using vole::CellForm;
using vole::CollisionBody;
using vole::CollisionWorld;
using vole::IVec2;
using vole::QueryFilter;
using vole::Rect;
using vole::Shape;
using vole::ShapeList;
using vole::SolidGrid;
using vole::TileShape;
using vole::Vec2;

// Those that are not off, and without those that only notice where they are not asked for.
ShapeList shapes_of(const CollisionBody& body, bool sensors = true) {
  if (!body.shapes) return {Shape::box(body.box)};
  ShapeList list;
  for (std::uint32_t i = 0; i < body.shapes->size(); ++i)
    if ((body.off_shapes >> i & 1u) == 0 && (sensors || (body.sensor_shapes >> i & 1u) == 0))
      list.push_back((*body.shapes)[i]);
  return list;
}

// How deep a body is in another, and in the tiles.
double depth(const CollisionBody& a, const CollisionBody& b) {
  double deepest = -1e9;
  for (const Shape& one : shapes_of(a, false))
    for (const Shape& other : shapes_of(b, false))
      deepest = std::max(deepest, -gap_between(one, a.at, other, b.at).distance);
  return deepest;
}
double depth(const CollisionBody& body, const SolidGrid& grid) {
  double deepest = -1e9;
  const Rect box = body.bounds();
  const IVec2 side = grid.cell();
  const auto cell_of = [](float at, int length) {
    return static_cast<int>(std::floor(at / static_cast<float>(length)));
  };
  for (int y = cell_of(box.top(), side.y) - 1; y <= cell_of(box.bottom(), side.y) + 1; ++y)
    for (int x = cell_of(box.left(), side.x) - 1; x <= cell_of(box.right(), side.x) + 1; ++x)
      if (const CellForm* form = grid.form(x, y))
        for (const Shape& shape : shapes_of(body, false))
          deepest = std::max(deepest,
                             -gap_between(shape, body.at, form->shape(), Vec2(IVec2{x, y} * side)).distance);
  return deepest;
}

// Tiles of any sides, over 256 x 192 pixels.
SolidGrid some_grid(vole::Random& chance) {
  const IVec2 cell = some_sides(chance);
  return random_grid(chance, IVec2{256, 192} / cell, 0.12f, cell);
}

struct Scene {
  SolidGrid grid;
  CollisionWorld world;
  std::vector<CollisionBody> bodies;

  Scene(vole::Random& chance, int count, float size = 14) : grid(some_grid(chance)) {
    world.set_tiles(&grid);
    for (int i = 0; i < count; ++i) bodies.push_back(random_body(chance, {256, 192}, size));
    put_all(chance);
  }

  // In any order, with some that come and go: that must make no difference.
  void put_all(vole::Random& chance) {
    std::vector<std::uint32_t> order(bodies.size());
    std::iota(order.begin(), order.end(), 0u);
    for (std::size_t i = order.size(); i > 1; --i)
      std::swap(order[i - 1], order[static_cast<std::size_t>(below(chance, static_cast<int>(i)))]);
    for (const std::uint32_t id : order) {
      world.put(id, random_body(chance, {256, 192}, 20));
      if (chance.chance(0.3f)) world.remove(id);
      world.put(id, bodies[id]);
    }
  }

  bool counts(std::uint32_t id, const QueryFilter& asked) const {
    const CollisionBody& body = bodies[id];
    return id != asked.except && (asked.categories >> body.category & 1u) != 0 &&
           (body.use == BodyUse::solid || (body.use == BodyUse::sensor && asked.sensors));
  }

  std::vector<IVec2> solid_cells(const QueryFilter& asked) const {
    std::vector<IVec2> cells;
    if (asked.tiles && (asked.categories & 1u) != 0)
      for (int y = 0; y < grid.cells().y; ++y)
        for (int x = 0; x < grid.cells().x; ++x)
          if (grid.form(x, y)) cells.push_back({x, y});
    return cells;
  }
};

QueryFilter random_question(vole::Random& chance) {
  return {static_cast<vole::CategoryMask>(below(chance, 16)), static_cast<std::uint32_t>(below(chance, 30)),
          chance.chance(0.7f), chance.chance(0.5f)};
}

bool same_hit(const std::optional<CastHit>& a, const std::optional<CastHit>& b) {
  if (!a || !b) return !a && !b;
  return std::abs(a->when - b->when) < 1e-6 && (a->what == b->what || a->when == 0);
}

}  // namespace

TEST_CASE("what is in a box, in a shape and at a point is what a look at everything finds, in order") {
  vole::Random chance(41);
  std::size_t all_found = 0;
  for (int round = 0; round < cases(300); ++round) {
    Scene scene(chance, 30);
    for (int question = 0; question < 6; ++question) {
      const QueryFilter asked = random_question(chance);
      const Vec2 at = vole::on_lattice({chance.within(-10, 256), chance.within(-10, 192)});
      const Rect area{at, vole::on_lattice({chance.within(1, 90), chance.within(1, 90)})};
      const Shape shape = random_shape(chance, 30);
      const Shape as_shape = Shape::box({{0, 0}, area.size});
      const auto expected = [&](const auto& holds) {
        std::vector<BodyOrCell> found;
        for (const IVec2 cell : scene.solid_cells(asked))
          if (holds(scene.grid.form(cell.x, cell.y)->shape(), Vec2(cell * scene.grid.cell())))
            found.push_back({vole::no_body, cell});
        for (std::uint32_t id = 0; id < scene.bodies.size(); ++id) {
          const ShapeList shapes = shapes_of(scene.bodies[id], asked.sensors);
          if (scene.counts(id, asked) && std::any_of(shapes.begin(), shapes.end(), [&](const Shape& each) {
                return holds(each, scene.bodies[id].at);
              }))
            found.push_back({id, {0, 0}});
        }
        return found;
      };
      std::vector<BodyOrCell> in_box, in_shape, at_point;
      scene.world.find(area, asked, in_box);
      scene.world.find(shape, at, asked, in_shape);
      scene.world.find(at, asked, at_point);
      REQUIRE(in_box ==
              expected([&](const Shape& s, Vec2 p) { return gap_between(as_shape, at, s, p).distance < 0; }));
      REQUIRE(in_shape ==
              expected([&](const Shape& s, Vec2 p) { return gap_between(shape, at, s, p).distance < 0; }));
      REQUIRE(at_point == expected([&](const Shape& s, Vec2 p) { return cast_ray(at, {0, 0}, s, p).hit; }));
      all_found += in_box.size() + in_shape.size() + at_point.size();
    }
  }
  CHECK(all_found > static_cast<std::size_t>(cases(300)) * 6);
}

TEST_CASE("rays and cast shapes meet first what a look at everything meets first") {
  vole::Random chance(42);
  int hits = 0;
  for (int round = 0; round < cases(300); ++round) {
    Scene scene(chance, 30);
    for (int question = 0; question < 6; ++question) {
      QueryFilter asked = random_question(chance);
      const Vec2 from{chance.within(-40, 300), chance.within(-40, 230)};
      const float reach = chance.chance(0.3f) ? 900.0f : 60.0f;
      Vec2 motion{chance.within(-reach, reach), chance.within(-reach, reach)};
      if (chance.chance(0.2f)) (chance.chance(0.5f) ? motion.x : motion.y) = 0;
      CAPTURE(round, question, from.x, from.y, motion.x, motion.y);
      std::vector<CastHit> all;
      for (const IVec2 cell : scene.solid_cells(asked)) {
        const auto hit =
            cast_ray(from, motion, scene.grid.form(cell.x, cell.y)->shape(), Vec2(cell * scene.grid.cell()));
        if (hit.hit) all.push_back({hit.when, hit.normal, hit.point, {vole::no_body, cell}});
      }
      for (std::uint32_t id = 0; id < scene.bodies.size(); ++id) {
        std::optional<CastHit> best;
        for (const Shape& shape : shapes_of(scene.bodies[id], asked.sensors)) {
          const auto hit = cast_ray(from, motion, shape, scene.bodies[id].at);
          if (hit.hit && scene.counts(id, asked) && (!best || hit.when < best->when))
            best = CastHit{hit.when, hit.normal, hit.point, {id, {0, 0}}};
        }
        if (best) all.push_back(*best);
      }
      std::stable_sort(all.begin(), all.end(),
                       [](const CastHit& a, const CastHit& b) { return a.when < b.when; });
      const auto first = scene.world.cast_ray(from, motion, asked);
      hits += first.has_value();
      REQUIRE(same_hit(first, all.empty() ? std::nullopt : std::optional(all.front())));
      std::vector<CastHit> along;
      scene.world.find_along(from, motion, asked, along);
      REQUIRE(along.size() == all.size());
      for (std::size_t i = 0; i < all.size(); ++i) REQUIRE(std::abs(along[i].when - all[i].when) < 1e-9);

      // A shape, against each of what is there; sides between tiles that touch are not felt, so without tiles.
      asked.tiles = false;
      const Shape shape = random_shape(chance, 10);
      std::optional<CastHit> expected;
      for (std::uint32_t id = 0; id < scene.bodies.size(); ++id)
        for (const Shape& other : shapes_of(scene.bodies[id], asked.sensors)) {
          const auto hit = sweep_shape(shape, from, motion, other, scene.bodies[id].at);
          if (hit.hit && scene.counts(id, asked) && (!expected || hit.when < expected->when))
            expected = CastHit{hit.when, hit.normal, hit.point, {id, {0, 0}}};
        }
      REQUIRE(same_hit(scene.world.cast_shape(shape, from, motion, asked), expected));

      // And what is nearest.
      std::optional<BodyOrCell> nearest;
      double distance = 50;
      asked.tiles = chance.chance(0.3f);
      for (const IVec2 cell : scene.solid_cells(asked)) {
        const Shape& tile = scene.grid.form(cell.x, cell.y)->shape();
        const double gap = std::max(
            gap_between(Shape::circle({0, 0}, 1), from, tile, Vec2(cell * scene.grid.cell())).distance + 1,
            0.0);
        if (gap > distance || (nearest && gap == distance)) continue;
        distance = gap;
        nearest = BodyOrCell{vole::no_body, cell};
      }
      for (std::uint32_t id = 0; id < scene.bodies.size(); ++id)
        for (const Shape& other : shapes_of(scene.bodies[id], asked.sensors)) {
          const double gap = std::max(
              gap_between(Shape::circle({0, 0}, 1), from, other, scene.bodies[id].at).distance + 1, 0.0);
          if (!scene.counts(id, asked) || gap > distance || (nearest && gap == distance)) continue;
          distance = gap;
          nearest = BodyOrCell{id, {0, 0}};
        }
      REQUIRE(scene.world.nearest(from, 50, asked) == nearest);
    }
  }
  CHECK(hits > cases(300) / 2);
}

TEST_CASE("a body of any shape that moves is never deeper in another than it was, at any speed") {
  vole::Random chance(43);
  int held = 0;
  for (int round = 0; round < cases(600); ++round) {
    Scene scene(chance, 14, 12);
    CollisionBody body;
    const auto is_free = [&] {
      return depth(body, scene.grid) < 0 &&
             std::all_of(scene.bodies.begin(), scene.bodies.end(), [&](const CollisionBody& other) {
               return other.use != BodyUse::solid || depth(body, other) < 0;
             });
    };
    do body = random_body(chance, {256, 192}, 9);
    while (!is_free());
    for (int leg = 0; leg < 4; ++leg) {
      const float reach = chance.chance(0.5f) ? 10.0f : 1600.0f;
      const Vec2 motion{chance.within(-reach, reach), chance.within(-reach, reach)};
      const BodyMoved moved =
          chance.chance(0.5f) ? scene.world.slide(body, motion) : scene.world.fly(body, motion);
      CAPTURE(round, leg, body.at.x, body.at.y, motion.x, motion.y, moved.at.x, moved.at.y);
      const CollisionBody before = body;
      body.at = moved.at;
      held += moved.held();
      REQUIRE(depth(body, scene.grid) < 0.01);
      for (const CollisionBody& other : scene.bodies)
        if (other.use == BodyUse::solid) REQUIRE(depth(body, other) < 0.01);
      if (!moved.held())
        REQUIRE(std::hypot(body.at.x - before.at.x - motion.x, body.at.y - before.at.y - motion.y) < 0.01f);
    }
  }
  CHECK(held > cases(600) * 3 / 4);
}

TEST_CASE(
    "no shape feels the seams between tiles: on a floor, under a ceiling, beside walls and along slopes") {
  vole::Random chance(44);
  SolidGrid grid({64, 64}, 16, {false, false, false, false});
  for (int i = 0; i < 64; ++i)
    for (int depth = 0; depth < 2; ++depth) {
      grid.set({i, 40 + depth}, true);
      grid.set({i, 30 - depth}, true);
    }
  for (int i = 0; i < 29; ++i) {
    grid.set({10, i}, true);
    grid.set({20, i}, true);
  }
  CollisionWorld world;
  world.set_tiles(&grid);
  for (int round = 0; round < cases(2000); ++round) {
    CollisionBody body;
    body.shapes = std::make_shared<ShapeList>(1, random_shape(chance, 8));
    const int way = below(chance, 4);
    const Vec2 towards[] = {{0, 60}, {0, -60}, {-60, 0}, {60, 0}};
    body.at = way < 2 ? Vec2{chance.within(300, 700), 568} : Vec2{264, chance.within(100, 350)};
    body.at = world
                  .slide(body, towards[way] + Vec2{way < 2 ? chance.within(-9, 9) : 0,
                                                   way < 2 ? 0 : chance.within(-9, 9)})
                  .at;
    // Pressed on while moving along, as gravity does.
    const float along = chance.within(-80, 80), press = chance.within(0, 5);
    const Vec2 motion =
        way < 2 ? Vec2{along, way == 0 ? press : -press} : Vec2{way == 2 ? -press : press, along};
    const BodyMoved moved = world.slide(body, motion);
    CAPTURE(round, way, body.at.x, body.at.y, motion.x, motion.y, moved.at.x, moved.at.y);
    const float gone = way < 2 ? moved.at.x - body.at.x : moved.at.y - body.at.y;
    REQUIRE(std::abs(gone - along) < 0.01f);
  }
}

TEST_CASE("shapes walk up and down slopes and stay on them") {
  SolidGrid grid({40, 12}, 16);
  for (int x = 0; x < 40; ++x) grid.set({x, 11}, true);
  for (int i = 0; i < 5; ++i) {
    grid.set({10 + i, 10 - i}, CellForm(TileShape::rise, 16));
    grid.set({24 - i, 10 - i}, CellForm(TileShape::fall, 16));
    for (int x = 11 + i; x < 24 - i; ++x) grid.set({x, 10 - i}, true);
  }
  CollisionWorld world;
  world.set_tiles(&grid);
  vole::Random chance(45);
  for (int round = 0; round < cases(40); ++round) {
    CollisionBody body;
    body.shapes = std::make_shared<ShapeList>(1, random_shape(chance, 7));
    body.at = {60, 120};
    body.at = world.fly(body, {0, 100}).at;
    REQUIRE(world.ground(body).any);
    const float speed = chance.within(0.3f, 6);
    float highest = body.at.y;
    for (int tick = 0; tick < 3000 && body.at.x < 560; ++tick) {
      const BodyMoved moved = world.walk(body, speed);
      CAPTURE(round, tick, body.at.x, body.at.y, speed);
      CAPTURE(moved.right.normal.x, moved.right.normal.y, shapes_of(body)[0].corners().size());
      REQUIRE(moved.below.any);
      REQUIRE_FALSE(moved.right.any);
      // As far as asked along the ground; across a joint, where that bends, the straight way is shorter.
      const float gone = std::hypot(moved.at.x - body.at.x, moved.at.y - body.at.y);
      REQUIRE(gone < 1.001f * speed + 0.001f);
      REQUIRE(gone > 0.9f * speed - 0.02f);
      body.at = moved.at;
      REQUIRE(depth(body, grid) < 0.01);
      highest = std::min(highest, body.at.y);
    }
    CHECK(body.at.x >= 560);
    CHECK(highest < 120);
  }
}

TEST_CASE("nothing is thrown through a wall of one pixel, spinning or not") {
  vole::Random chance(46);
  int through = 0, met = 0;
  for (int round = 0; round < cases(2000); ++round) {
    CollisionWorld world;
    const float wall = std::floor(chance.within(200, 900));
    world.put(0, {.at = {wall, 0}, .box = {{0, -2000}, {1, 4000}}, .shapes = nullptr});
    CollisionBody body;
    body.at = {100, chance.within(-50, 50)};
    // Around its position, so that it cannot turn over the wall.
    const Shape any = random_shape(chance, 12);
    const Shape shape = any.moved_by(-any.bounds().at - any.bounds().size * 0.5f);
    float angle = 0;
    const float spin = chance.within(-90, 90);
    const bool is_box = chance.chance(0.2f);
    body.box = {{-6, -6}, {12, 12}};
    Vec2 velocity{chance.within(100, 100'000 / 60.0f), chance.within(-300, 300)};
    for (int tick = 0; tick < 6; ++tick) {
      if (!is_box) {
        // It turns where there is room.
        const auto turned = std::make_shared<ShapeList>(1, shape.turned(angle + spin));
        std::vector<BodyOrCell> found;
        world.find((*turned)[0], body.at, {}, found);
        if (found.empty() || !body.shapes) {
          body.shapes = turned;
          angle += spin;
        }
      }
      const BodyMoved moved = world.slide(body, velocity);
      body.at = moved.at;
      met += moved.right.any;
      velocity = moved.kept(velocity) + Vec2{chance.within(0, 100'000 / 60.0f), 0};
    }
    through += body.bounds().left() > wall;
  }
  CHECK(through == 0);
  CHECK(met > cases(2000));
}

TEST_CASE("bodies hold each other by their categories and use, and one-way ones on their side") {
  CollisionWorld world;
  const CollisionBody walker{.at = {0, 0}, .box = {{0, 0}, {8, 8}}, .shapes = nullptr};
  const auto runs_into = [&](const CollisionBody& other, const vole::MoveRules& rules) {
    world.put(3, other);
    return world.slide(walker, {100, 0}, rules);
  };
  CollisionBody door{.at = {40, -4}, .box = {{0, 0}, {4, 30}}, .shapes = nullptr, .category = 5};
  const BodyMoved moved = runs_into(door, {});
  CHECK(moved.at == Vec2{32, 0});
  CHECK(moved.right.body == 3);
  CHECK(runs_into(door, {.blocked_by = 1u << 5}).held());
  // A shape may be less than its body is, and what moves with such ones is held by the others alone.
  const ShapeList halves{Shape::box({{0, 0}, {4, 4}}), Shape::box({{20, 0}, {4, 30}})};
  CollisionBody of_halves = door;
  of_halves.shapes = std::make_shared<ShapeList>(halves);
  CHECK(runs_into(of_halves, {}).at == Vec2{52, 0});
  of_halves.sensor_shapes = 2;
  CHECK_FALSE(runs_into(of_halves, {}).held());
  CHECK(of_halves.use_of(1) == BodyUse::sensor);
  CHECK(of_halves.solid_box() == Rect{{0, 0}, {4, 4}});
  of_halves.off_shapes = 1;
  CHECK_FALSE(of_halves.solid_box());
  of_halves.at = {-40, 0};
  world.put(3, door);
  CHECK_FALSE(world.slide(of_halves, {100, 0}, {.self = 9}).held());
  of_halves.off_shapes = 0;
  CHECK(world.slide(of_halves, {100, 0}, {.self = 9}).at == Vec2{36, 0});
  CHECK_FALSE(runs_into(door, {.blocked_by = 1u << 4}).held());
  CHECK_FALSE(runs_into(door, {.self = 3}).held());
  door.use = BodyUse::sensor;
  CHECK_FALSE(runs_into(door, {}).held());
  CHECK_FALSE(world.would_hit(walker, {100, 0}));
  door.use = BodyUse::off;
  CHECK_FALSE(runs_into(door, {}).held());
  door.use = BodyUse::solid;
  door.one_way = vole::OneWay::right;
  CHECK_FALSE(runs_into(door, {}).held());
  door.one_way = vole::OneWay::left;
  CHECK(runs_into(door, {}).held());
  const auto hit = world.would_hit(walker, {100, 0});
  REQUIRE(hit);
  CHECK(hit->what.body == 3);
  CHECK(hit->when == Approx(0.32));
  CHECK(hit->normal == Vec2{-1, 0});
  CHECK(hit->point == Vec2{40, 4});
  world.remove(3);
  CHECK_FALSE(world.slide(walker, {100, 0}).held());
  world.remove(3);
  CHECK(world.size() == 0);
  // However small, but not nothing, and not too many.
  CollisionBody dot{.at = {0, 0}, .box = {{0, 0}, {0.5f, 0.5f}}, .shapes = nullptr};
  world.put(3, dot);
  CHECK(world.has(3));
  for (const Vec2 size : {Vec2{0, 1}, Vec2{1, 0}, Vec2{1, 8193}}) {
    dot.box.size = size;
    CHECK_THROWS_AS(world.put(3, dot), vole::Error);
  }
  dot.shapes = std::make_shared<ShapeList>(32, Shape::circle({0, 0}, 1));
  world.put(3, dot);
  dot.shapes = std::make_shared<ShapeList>(33, Shape::circle({0, 0}, 1));
  CHECK_THROWS_WITH(world.put(3, dot), Catch::Contains("a body of 33 shapes: at most 32"));
}

TEST_CASE("five hundred bodies of all shapes end in the same bits with every compiler") {
  CHECK(flight_of_many(300) == sum_after_300);
  // In long runs; in a program for browsers always: web/same_bits.cpp.
  if (cases(10) > 10) CHECK(flight_of_many(3600) == sum_after_3600);
}

TEST_CASE("numbers that are none, a million bodies in one spot and endless rays do no harm") {
  CollisionWorld world;
  const float nan = std::nanf("");
  for (const float bad : {nan, HUGE_VALF, -HUGE_VALF, 1e30f}) {
    world.put(1, {.at = {bad, 0}, .box = {{0, 0}, {8, 8}}, .shapes = nullptr});
    const CollisionBody endless{.at = {0, 0}, .box = {{0, 0}, {8, bad}}, .shapes = nullptr};
    if (bad == 1e30f)
      CHECK_THROWS_WITH(world.put(2, endless), Catch::Contains("within 8192 pixels of the position"));
    else
      world.put(2, endless);
    CHECK_FALSE(world.has(2));
    const CollisionBody body{.at = {bad, bad}, .box = {{0, 0}, {8, 8}}, .shapes = nullptr};
    world.slide(body, {1, 1});
    CHECK(std::isfinite(
        world.slide({.at = {0, 20}, .box = {{0, 0}, {8, 8}}, .shapes = nullptr}, {bad, bad}).at.x));
    world.cast_ray({bad, 0}, {1, bad});
    world.cast_ray({0, 0}, {bad, bad});
    std::vector<BodyOrCell> found;
    world.find(Rect{{bad, 0}, {bad, 8}}, {}, found);
    world.find(Vec2{bad, bad}, {}, found);
    world.nearest({bad, 0}, bad);
    CHECK(found.size() < 3);
  }
  for (std::uint32_t id = 0; id < 1'000'000; ++id)
    world.put(id, {.at = {5, 5}, .box = {{0, 0}, {8, 8}}, .shapes = nullptr, .use = BodyUse::sensor});
  CHECK(world.slide({.at = {0, 0}, .box = {{0, 0}, {8, 8}}, .shapes = nullptr}, {20, 20}).at == Vec2{20, 20});
  CHECK(world.cast_ray({0, 7}, {20, 0})->what.body == 0);
}
