// What movers can do besides walking: in the air, on ladders, in liquids, along paths, at the edges of the level; and a mover of a
// game's own.
#include <cmath>

#include "vole/base/direction.hpp"
#include "vole/base/random.hpp"
#include "vole/physics/collision_world.hpp"
#include "vole/scene/movers/mover_turn.hpp"
#include "vole/world/along_path.hpp"
#include "vole/world/fly_mover.hpp"
#include "vole/world/level_edge.hpp"
#include "vole/world/side_mover.hpp"
#include "yard.hpp"

namespace {

using Catch::Contains;
using vole::Entity;
using vole::SideState;
using vole::Vec2;

// One that walks from the side, with more numbers.
std::string vole_kind(const std::string& numbers) {
  return "[vole]\nbody = { size = [10, 14], category = \"walkers\" }\n"
         "side_mover = { speed = 100, acceleration = 100000, deceleration = 100000, jump = 280" +
         (numbers.empty() ? "" : ", " + numbers) + " }\n";
}

const std::string special_tiles =
    "rungs = { colour = \"#c98b4a\", ladder = {} }\n"
    "top = { colour = \"#c98b4a\", ladder = {}, solid = true, one_way = \"up\" }\n"
    "brook = { colour = \"#3b6ea5\", liquid = { current = [30, 0], sink = 15 } }\n"
    "belt = { colour = \"#4a3026\", solid = true, belt = { speed = [40, 0] } }\n"
    "ice = { colour = \"#d9ecf2\", solid = true, friction = 0.05 }\n";
const std::string special_letters =
    "\"H\" = \"rungs\"\n\"T\" = \"top\"\n\"~\" = \"brook\"\n\"b\" = \"belt\"\n\"i\" = \"ice\"\n";

// Rows of 40 cells; those that are not said are empty, and the last is a floor.
std::string rows_with(std::initializer_list<std::pair<int, std::string>> said) {
  std::vector<std::string> rows(16, std::string(40, '.'));
  rows[15] = std::string(40, '#');
  for (const auto& [row, text] : said) rows[static_cast<std::size_t>(row)].replace(0, text.size(), text);
  std::string all;
  for (const std::string& row : rows) all += "\"" + row + "\",\n";
  return all;
}

struct Voles : Yard {
  Entity thing;
  Voles(const std::string& numbers, Vec2 at, const std::string& rows = rows_with({}))
      : Yard(vole_kind(numbers), special_tiles, rows, {}, special_letters), thing(stage->spawn("vole", at)) {
    ticks(4);
  }
  vole::Intent& intent() { return stage->get<vole::Intent>(thing); }
  vole::SideMover& mover() { return stage->get<vole::SideMover>(thing); }
  Vec2 at() { return pose(thing).at; }
  Vec2 velocity() { return stage->get<vole::Motion>(thing).velocity; }
  // Held for so many ticks; what is pressed is pressed in the first.
  void ticks(int count, Vec2 direction = {0, 0}, bool jump = false, bool dash = false) {
    for (int i = 0; i < count; ++i) {
      intent() = {};
      intent().direction = direction;
      intent().jump_pressed = jump && i == 0;
      intent().jump_held = jump;
      intent().dash_pressed = dash && i == 0;
      tick();
    }
  }
  bool grounded() { return touching(thing).ground; }
};

}  // namespace

TEST_CASE("nothing but walking, jumping and falling is done that was not asked for") {
  vole::Random chance(3);
  // With all of it around, and all of it pushed, it goes as one in a plain yard.
  const std::string rows = rows_with({{13, "......H...~~~~~......."}, {14, "......H...~~~~~......#"}});
  Voles among("", {100, floor_y}, rows),
      alone("", {100, floor_y}, rows_with({{14, ".....................#"}}));
  for (int i = 0; i < cases(1500); ++i) {
    const Vec2 direction{static_cast<float>(below(chance, 3)) - 1, static_cast<float>(below(chance, 3)) - 1};
    const bool jump = below(chance, 3) == 0, dash = below(chance, 5) == 0;
    among.ticks(1, direction, jump, dash);
    alone.ticks(1, direction, jump, dash);
    REQUIRE(among.at() == alone.at());
    REQUIRE(among.mover().now.state == SideState::free);
  }
}

TEST_CASE("jumps in the air are as many as are asked for, and come back on the ground") {
  for (const int air_jumps : {0, 1, 3}) {
    Voles voles(fmt::format("air_jumps = {}", air_jumps), {100, floor_y});
    for (int round = 0; round < 2; ++round) {
      voles.pose(voles.thing).at = {100, -500};
      int begun = 0;
      voles.ticks(20);
      for (int i = 0; i < air_jumps + 3; ++i) {
        voles.ticks(1, {0, 0}, true);
        begun += voles.velocity().y < 0 ? 1 : 0;
        voles.ticks(12);
      }
      CHECK(begun == air_jumps);
      voles.ticks(240);
      REQUIRE(voles.grounded());
    }
  }
}

TEST_CASE("along a wall it slides as slowly as asked, jumps off it, and climbs between two walls by that") {
  const std::string walls = rows_with({{2, "#....#"},
                                       {3, "#....#"},
                                       {4, "#....#"},
                                       {5, "#....#"},
                                       {6, "#....#"},
                                       {7, "#....#"},
                                       {8, "#....#"},
                                       {9, "#....#"},
                                       {10, "#....#"},
                                       {11, "#....#"},
                                       {12, "#....#"},
                                       {13, "#....#"},
                                       {14, "#....#"}});
  Voles slides("wall_slide = 30, wall_jump = [120, 260]", {60, 60}, walls);
  slides.ticks(40, {1, 0});
  CHECK(slides.velocity().y == 30);
  CHECK(slides.mover().now.state == SideState::sliding);
  const float before = slides.at().y;
  slides.ticks(1, {1, 0}, true);
  CHECK(slides.velocity().x < -100);
  CHECK(slides.velocity().y < -200);
  // For a moment pushing back does nothing, so it gets away from the wall.
  slides.ticks(6, {1, 0}, true);
  CHECK(slides.velocity().x < 0);
  CHECK(slides.at().y < before);

  Voles climbs("wall_jump = [160, 300], air_control = 1", {60, floor_y}, walls);
  climbs.ticks(1, {0, 0}, true);
  float side = 1, highest = floor_y;
  for (int i = 0; i < 600; ++i) {
    const bool at_wall = climbs.touching(climbs.thing).wall() && !climbs.grounded();
    climbs.intent() = {};
    climbs.intent().direction = {side, 0};
    climbs.intent().jump_pressed = at_wall;
    climbs.intent().jump_held = true;
    climbs.tick();
    if (at_wall) side = -side;
    highest = std::min(highest, climbs.at().y);
  }
  CHECK(highest < floor_y - 100);
  // Without, the wall is only a wall.
  Voles falls("", {60, 60}, walls);
  falls.ticks(20, {1, 0});
  CHECK(falls.velocity().y > 200);
  falls.ticks(1, {1, 0}, true);
  CHECK(falls.velocity().y > 0);
}

TEST_CASE("a ladder is climbed up onto its top and down from there; a jump lets go of it") {
  const std::string rows =
      rows_with({{10, "####T###"}, {11, "....H..."}, {12, "....H..."}, {13, "....H..."}, {14, "....H..."}});
  Voles voles("climb = 60", {72, floor_y}, rows);
  voles.ticks(30, {0, -1});
  CHECK(voles.mover().now.state == SideState::climbing);
  CHECK(voles.velocity().y == -60);
  voles.ticks(10);
  const float hangs = voles.at().y;
  voles.ticks(10);
  CHECK(voles.at().y == hangs);
  voles.ticks(90, {0, -1});
  CHECK(voles.at().y == 160);
  CHECK(voles.grounded());
  CHECK(voles.mover().now.state == SideState::free);
  voles.ticks(30, {0, 1});
  CHECK(voles.at().y == 190);
  CHECK(voles.mover().now.state == SideState::climbing);
  voles.ticks(1, {0, 0}, true);
  CHECK(voles.mover().now.state == SideState::free);
  CHECK(voles.velocity().y < 0);
  voles.ticks(120);
  CHECK(voles.at().y == floor_y);
  // Up a ladder whose top is open it hangs on below its end.
  Voles open("climb = 60", {72, floor_y}, rows_with({{13, "....H..."}, {14, "....H..."}}));
  open.ticks(120, {0, -1});
  CHECK(open.mover().now.state == SideState::climbing);
  const float y = open.at().y;
  open.ticks(30, {0, -1});
  CHECK(std::abs(open.at().y - y) < 2);
}

TEST_CASE(
    "who stands beside the middle of a ladder is not held by what is beside it, on the way up and down") {
  const std::string rows =
      rows_with({{10, "####T###"}, {11, "....H..."}, {12, "....H..."}, {13, "....H..."}, {14, "....H..."}});
  for (float x = 65; x < 80; x += 0.5f) {
    CAPTURE(x);
    Voles voles("climb = 60", {x, floor_y}, rows);
    voles.ticks(130, {0, -1});
    CHECK(voles.at().y == 160);
    CHECK(voles.grounded());
    // Only as far as it must be.
    CHECK(std::abs(voles.at().x - 72) <= 3);
    voles.pose(voles.thing).at.x = x;
    voles.ticks(130, {0, 1});
    CHECK(voles.at().y == floor_y);
    CHECK(voles.mover().now.state == SideState::free);
  }
}

TEST_CASE(
    "in a liquid it swims, drifts with the current, sinks slowly, and gets out by a jump at the surface") {
  const std::string deep = "~~~~~~~~~~~~~~~~~~~~~~~~~~~~~~~~~~~~~~~~";
  const std::string rows = rows_with({{10, deep}, {11, deep}, {12, deep}, {13, deep}, {14, deep}});
  Voles voles("swim = 50", {100, 200}, rows);
  voles.ticks(60);
  CHECK(voles.mover().now.state == SideState::swimming);
  CHECK(voles.velocity() == Vec2{30, 15});
  voles.ticks(60, {-1, 0});
  CHECK(voles.velocity().x == -20);
  voles.ticks(120, {0, -1});
  CHECK(voles.at().y < 180);
  voles.ticks(4, {0, 0}, true);
  float highest = 1000;
  for (int i = 0; i < 40; ++i) {
    voles.ticks(1, {0, 0}, true);
    voles.intent().jump_pressed = false;
    highest = std::min(highest, voles.at().y);
  }
  CHECK(highest < 150);
  // What does not swim falls through.
  Voles sinks("", {100, 100}, rows);
  sinks.ticks(60);
  CHECK(sinks.at().y == floor_y);
}

TEST_CASE("it crouches under what is low, and gets up only where there is room") {
  Voles voles("crouch = 8, crouch_speed = 0.5", {40, floor_y});
  const Entity ceiling = voles.stage->spawn("door", {130, floor_y - 10});
  voles.ticks(4);
  CHECK(voles.stage->box(voles.thing).size.y == 14);
  voles.ticks(60, {1, 0});
  CHECK(voles.at().x < 125);
  voles.ticks(2, {0, 1});
  CHECK(voles.stage->box(voles.thing).size.y == 8);
  CHECK(voles.mover().now.state == SideState::crouching);
  const float x = voles.at().x;
  voles.ticks(10, {0.8f, 0.6f});
  CHECK(voles.at().x - x == Approx(0.8f * 50 / 6).margin(1));
  voles.ticks(12, {0.8f, 0.6f});
  // Under it: it stays low though it would get up.
  voles.ticks(10);
  CHECK(voles.stage->box(voles.thing).size.y == 8);
  // Where it is exactly as high as it is, it gets up.
  voles.stage->get<vole::Pose>(ceiling).at.y = floor_y - 13;
  voles.ticks(4);
  CHECK(voles.stage->box(voles.thing).size.y == 8);
  voles.stage->get<vole::Pose>(ceiling).at.y = floor_y - 14;
  voles.ticks(4);
  CHECK(voles.stage->box(voles.thing).size.y == 14);
  CHECK(voles.mover().now.state == SideState::free);
}

TEST_CASE("a dash goes straight for its time, once in the air, and not again before its pause is over") {
  Voles voles("dash = 300, dash_seconds = 0.2, dash_pause = 0.3", {100, 60});
  voles.intent() = {};
  voles.pose(voles.thing).at = {100, 60};
  const float x = voles.at().x, y = voles.at().y;
  voles.ticks(12, {1, 0}, false, true);
  CHECK(voles.at().x - x == Approx(60).margin(6));
  CHECK(voles.at().y == y);
  CHECK(voles.mover().now.state == SideState::dashing);
  voles.ticks(2);
  CHECK(voles.mover().now.state == SideState::free);
  voles.ticks(1, {1, 0}, false, true);
  CHECK(voles.mover().now.state == SideState::free);
  voles.ticks(200);
  REQUIRE(voles.grounded());
  voles.ticks(1, {-1, 0}, false, true);
  CHECK(voles.velocity().x == -300);
}

TEST_CASE("gliding falls slowly while jump is held, and only then") {
  Voles voles("glide = 40", {100, 20});
  voles.ticks(30, {0, 0}, true);
  CHECK(voles.velocity().y == 40);
  CHECK(voles.mover().now.state == SideState::gliding);
  voles.ticks(10);
  CHECK(voles.velocity().y > 100);
}

TEST_CASE("feet that are a few pixels below an edge get onto it") {
  // Walking into a thing that is five pixels high, and falling past the edge of a shelf.
  for (const float step : {0.0f, 3.0f, 5.0f, 8.0f}) {
    Voles walks(fmt::format("step_up = {}", step), {40, floor_y});
    vole::Body& sill = walks.stage->get<vole::Body>(walks.stage->spawn("door", {100, floor_y}));
    sill.size = {20, 5};
    walks.ticks(60, {1, 0});
    CAPTURE(step, walks.at().x, walks.at().y);
    CHECK((walks.at().x > 110) == (step >= 5));
  }
}

TEST_CASE("a belt takes along what stands on it, and a jump keeps its speed; ice lets nobody stop") {
  Voles rides("", {100, floor_y}, rows_with({{15, "####bbbbbbbbbbbbbbbbbbbb################"}}));
  const float x = rides.at().x;
  rides.ticks(60);
  CHECK(rides.at().x - x == Approx(40).margin(1));
  CHECK(rides.velocity().x == 0);
  Voles slips("", {100, floor_y}, rows_with({{15, "iiiiiiiiiiiiiiiiiiiiiiiiiiiiiiiiiiiiiiii"}}));
  slips.mover().acceleration = slips.mover().deceleration = 200;
  slips.ticks(60, {1, 0});
  CHECK(slips.velocity().x == Approx(10).margin(0.5));
}

TEST_CASE("a crate is pushed no faster than it lets itself be pushed, and held by what is behind it") {
  Yard yard(
      "[box]\nbody = { size = [12, 12], category = \"crates\" }\nside_mover = { speed = 0 }\npushable = { "
      "speed = 30 }\n"
      "[cart]\nbody = { size = [12, 12], category = \"crates\" }\npushable = { speed = 30 }\n"
      "[bird]\nbody = { size = [10, 10], category = \"walkers\" }\ntop_mover = { speed = 90 }\n");
  const Entity walker = yard.stage->spawn("walker", {100, floor_y}),
               box = yard.stage->spawn("box", {120, floor_y});
  const Entity rider = yard.stage->spawn("crate", {120, floor_y - 12});
  yard.stage->spawn("door", {200, floor_y});
  for (int i = 0; i < 60; ++i) {
    yard.walk(walker, 1);
    yard.tick();
  }
  CHECK(yard.pose(box).at.x == Approx(120 + 30 * 55 / 60.0f).margin(3));
  CHECK(yard.pose(rider).at.x == Approx(yard.pose(box).at.x).margin(1));
  for (int i = 0; i < 200; ++i) {
    yard.walk(walker, 1);
    yard.tick();
  }
  CHECK(yard.pose(box).at.x == 200 - 3 - 6);
  CHECK_FALSE(yard.stage->overlap(walker, box));
  // From above, in four directions.
  for (const Vec2 way : {Vec2{1, 0}, {-1, 0}, {0, 1}, {0, -1}}) {
    const Entity cart = yard.stage->spawn("cart", {300, 100});
    const Entity bird = yard.stage->spawn("bird", Vec2{300, 100} - way * 24.0f);
    for (int i = 0; i < 60; ++i) {
      yard.stage->get<vole::Intent>(bird).direction = way;
      yard.tick();
    }
    const Vec2 gone = yard.pose(cart).at - Vec2{300, 100};
    CAPTURE(way.x, way.y, gone.x, gone.y);
    CHECK(gone.x * way.x + gone.y * way.y > 15);
    CHECK(gone.x * way.y == 0);
    yard.stage->remove(cart);
    yard.stage->remove(bird);
    yard.tick();
  }
}

TEST_CASE("whoever pushes a crate that cannot go on, from whichever sides, nobody comes to be inside of it") {
  for (const std::uint64_t seed : {0u, 1u, 2u, 3u, 4u, 5u}) {
    Yard yard(
        "[cart]\nbody = { size = [12, 12], category = \"crates\" }\npushable = { speed = 30 }\n"
        "[post]\nbody = { size = [40, 8], category = \"doors\" }\n"
        "[bird]\nbody = { size = [10, 10], category = \"walkers\" }\ntop_mover = { speed = 90 }\n");
    yard.stage->spawn("post", {300, 60});
    // One stands flush on the crate, before a wall, and one comes from below.
    const Entity cart = yard.stage->spawn("cart", {300, 82});
    std::vector<Entity> birds = {yard.stage->spawn("bird", {300, 70}), yard.stage->spawn("bird", {300, 100})};
    if (seed > 0) birds.push_back(yard.stage->spawn("bird", {280, 82}));
    vole::Random random(seed);
    std::vector<Vec2> ways = {{0, 1}, {0, -1}, {1, 0}};
    for (int i = 0; i < 400; ++i) {
      for (std::size_t k = 0; k < birds.size(); ++k) {
        if (seed > 0 && random.below(20) == 0)
          ways[k] = vole::unit_of(static_cast<vole::Direction>(random.below(8)));
        yard.stage->get<vole::Intent>(birds[k]).direction = ways[k];
      }
      yard.tick();
      for (const Entity bird : birds) REQUIRE_FALSE(yard.stage->overlap(bird, cart));
      REQUIRE(yard.stage->bodies().has(cart.index));
    }
  }
}

TEST_CASE("what flies keeps its speed limit, loses it by drag, turns and seeks") {
  Yard yard(
      "[boat]\nbody = { size = [8, 8], category = \"walkers\" }\nfly_mover = { thrust = 300, drag = 2, "
      "steering = \"turns\", turn = 90 }\n"
      "[fly]\nbody = { size = [4, 4], category = \"seeds\" }\nfly_mover = { thrust = 500, drag = 4, turn = "
      "200, steering = \"seeks\" }\n"
      "[ball]\nbody = { size = [8, 8], category = \"walkers\" }\nfly_mover = { thrust = 0, drag = 0, bounce "
      "= 1, gravity = 200 }\n");
  const Entity boat = yard.stage->spawn("boat", {100, 100});
  const auto steer = [&](Entity thing, Vec2 direction, int ticks) {
    for (int i = 0; i < ticks; ++i) {
      yard.stage->get<vole::Intent>(thing).direction = direction;
      yard.tick();
    }
  };
  steer(boat, {0, -1}, 300);
  // Ahead is to the right, until the wall; thrust against drag is 150.
  CHECK(yard.stage->get<vole::Motion>(boat).velocity.y == 0);
  steer(boat, {1, 0}, 60);
  CHECK(yard.stage->get<vole::FlyMover>(boat).heading == Approx(90).margin(0.01));
  yard.pose(boat).at = {300, 60};
  steer(boat, {0, -1}, 40);
  CHECK(yard.stage->get<vole::Motion>(boat).velocity.y ==
        Approx(300 / 2.0f * (1 - std::exp(-80 / 60.0f))).margin(8));
  steer(boat, {0, 0}, 240);
  CHECK(std::abs(yard.stage->get<vole::Motion>(boat).velocity.y) < 1);

  vole::Random chance(8);
  for (int round = 0; round < cases(20); ++round) {
    const Vec2 from{chance.within(100, 500), chance.within(40, 200)},
        goal{chance.within(100, 500), chance.within(40, 200)};
    const Entity fly = yard.stage->spawn("fly", from);
    float nearest = 1000;
    for (int i = 0; i < 400; ++i) {
      const Vec2 way = goal - yard.pose(fly).at;
      nearest = std::min(nearest, vole::length_of(way));
      yard.stage->get<vole::Intent>(fly).direction = way / std::max(vole::length_of(way), 0.01f);
      yard.tick();
    }
    CAPTURE(from.x, from.y, goal.x, goal.y);
    CHECK(nearest < 20);
    yard.stage->remove(fly);
  }
  // A ball that bounces without loss comes up again and again.
  const Entity ball = yard.stage->spawn("ball", {200, 140});
  float highest = 1000;
  for (int i = 0; i < 600; ++i) {
    yard.tick();
    if (i > 400) highest = std::min(highest, yard.pose(ball).at.y);
  }
  CHECK(highest == Approx(140).margin(12));
}

TEST_CASE(
    "along a path with ease it stops where it waits, is as long under way, and goes back the same way") {
  const auto run = [](const std::string& more, int ticks) {
    Yard yard(
        "[boat]\nbody = { size = [32, 8], category = \"lifts\" }\nalong_path = { points = [[0, 0], [60, 0], "
        "[60, -60]], speed = 60" +
        more + " }\n");
    const Entity boat = yard.stage->spawn("boat", {100, 120});
    std::vector<Vec2> way;
    for (int i = 0; i < ticks; ++i) {
      yard.tick();
      way.push_back(yard.pose(boat).at - Vec2{100, 120});
    }
    return way;
  };
  const auto plain = run("", 240), eased = run(", ease = \"sine both\"", 240);
  CHECK(plain[119].y == Approx(-60).margin(1.1));
  CHECK(eased[119].y == Approx(-60).margin(0.1));
  CHECK(std::abs(eased[239].x) < 0.1f);
  // Slow at its ends, and twice as far at half of its time.
  CHECK(eased[5].x < plain[5].x / 2);
  CHECK(eased[59].x == Approx(60).margin(1.1));
  // In the middle of its way, at the corner, it is the fastest.
  CHECK(eased[57].x - eased[54].x > 4);
  CHECK(eased[65].y - eased[62].y < -4);
  for (const Vec2 at : eased) CHECK((std::abs(at.y) < 0.01f || std::abs(at.x - 60) < 0.01f));
  // With waits each part between two of them is eased by itself.
  const auto waits = run(", ease = \"quad both\", waits = [0, 0.5, 0]", 360);
  CHECK(waits[61].x == Approx(60).margin(0.1));
  CHECK(waits[89] == waits[62]);
  CHECK(waits[92].y > -1);
  CHECK(waits[151].y == Approx(-60).margin(0.5));
  const auto linear = run(", waits = [0, 0.5, 0]", 200);
  CHECK(linear[85] == Vec2{60, 0});
  CHECK(linear[100].y < 0);
}

TEST_CASE("at the edges of the level things are held, come in again, are removed or told") {
  const std::string kinds =
      "[held]\nbody = { size = [10, 10], category = \"seeds\" }\ntop_mover = { speed = 300 }\nlevel_edge = { "
      "sides = \"hold\", top = \"hold\", bottom = \"hold\" }\n"
      "[wraps]\nbody = { size = [10, 10], category = \"seeds\" }\ntop_mover = { speed = 300 }\nlevel_edge = "
      "{ sides = \"wrap\", bottom = \"wrap\" }\n"
      "[drops]\nbody = { size = [10, 10], category = \"seeds\" }\ntop_mover = { speed = 300 }\nlevel_edge = "
      "{ sides = \"removed\", bottom = \"removed\", tells = \"gone\" }\n";
  std::string open = "[sides]\nleft = \"open\"\nright = \"open\"\n";
  std::string empty;
  for (int y = 0; y < 16; ++y) empty += "\"" + std::string(40, '.') + "\",\n";
  Yard yard(kinds, {}, empty, {}, open);
  std::vector<Entity> told;
  yard.say([&](vole::Cues& cues) {
    cues.when_told("gone", [&](vole::Stage&, Entity thing) { told.push_back(thing); });
  });
  vole::Random chance(4);
  const vole::Rect level{{0, 0}, {640, 256}};
  for (int round = 0; round < cases(30); ++round) {
    const Vec2 way{chance.within(-1, 1), chance.within(-1, 1)};
    const Vec2 at{chance.within(20, 600), chance.within(20, 200)};
    const Entity held = yard.stage->spawn("held", at), wraps = yard.stage->spawn("wraps", at),
                 drops = yard.stage->spawn("drops", at);
    told.clear();
    for (int i = 0; i < 300; ++i) {
      for (const Entity thing : {held, wraps, drops})
        if (yard.stage->entities().alive(thing)) yard.stage->get<vole::Intent>(thing).direction = way;
      const Vec2 before = yard.pose(wraps).at;
      yard.tick();
      CAPTURE(round, i, way.x, way.y);
      const vole::Rect box = yard.stage->box(held), other = yard.stage->box(wraps);
      REQUIRE((box.left() >= 0 && box.right() <= 640 && box.top() >= 0 && box.bottom() <= 256));
      REQUIRE(level.contains(other.at + other.size * 0.5f));
      // It went on by as much as ever, round the level or not.
      const vole::Pose& pose = yard.pose(wraps);
      REQUIRE(vole::length_of(pose.at - pose.before) < 6);
      REQUIRE((before == pose.before || vole::length_of(before - pose.before) > 100));
    }
    // Out at the top alone it is not gone, for that side says nothing; but it is told of.
    if (std::abs(way.x) > 0.5f || way.y > 0.5f) CHECK_FALSE(yard.stage->entities().alive(drops));
    if (std::abs(way.x) > 0.5f || std::abs(way.y) > 0.5f) CHECK(told == std::vector<Entity>{drops});
    for (const Entity thing : {held, wraps, drops})
      if (yard.stage->entities().alive(thing)) yard.stage->remove(thing);
    yard.tick();
  }
}

namespace {

// A mover of a game's own.
struct Skater {
  float push = 400;
  int turns = 0;
};
template <class V>
void describe(V& v, Skater& skater) {
  v("push", skater.push, vole::within(0, 1000));
  v.state("turns", skater.turns);
}
void skate(vole::MoverTurn& turn, Skater& skater) {
  turn.motion.velocity += turn.intent.direction * skater.push * turn.seconds;
  if (turn.go().held()) ++skater.turns;
}

}  // namespace

TEST_CASE(
    "a mover of a game's own is a struct and a function, and is steered, checked, tuned and saved as ours "
    "are") {
  TestStage test;
  test.game.moves<Skater>("skater", skate);
  TempFolder folder;
  write_small_game(folder);
  folder.write(
      "kinds.toml",
      "[mouse]\nbody = { size = [6, 6] }\nskater = { push = 300 }\nroutine = { steps = [\"2 right\"] "
      "}\n[crumb]\nbody = { size = [4, 4] }\n");
  vole::Stage& stage = test.start(folder);
  stage.load_level("patch");
  const Entity mouse = stage.first("mouse");
  test.tick(10);
  // It falls not, and goes by its own rule: 300 a second, each second.
  CHECK(stage.get<vole::Motion>(mouse).velocity.x == Approx(50));
  const vole::StateBytes state = test.state();
  stage.get<Skater>(mouse).push = 0;
  CHECK(test.state() != state);
  // Of two movers, one too many; without a body, none to move; a number beyond its limits.
  for (const auto& [kinds, message] :
       {std::pair{"[a]\nbody = {}\nskater = {}\ntop_mover = {}\n", "is moved by a skater and by a top_mover"},
        {"[a]\nskater = {}\n", "has a skater but no body to move"},
        {"[a]\nbody = {}\nskater = { push = 2000 }\n", "1000"},
        {"[a]\nbody = {}\nskater = { puhs = 20 }\n", "push"}}) {
    folder.write("kinds.toml", kinds);
    vole::Stage& next = test.start(folder);
    CHECK_THROWS_WITH(next.spawn("a", {0, 0}), Contains(message));
  }
}
