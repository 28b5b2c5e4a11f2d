// Minds of what walks and jumps find their way over ledges, by playing their own movers.
#include <cmath>

#include "vole/scene/bodies/solid_things.hpp"
#include "vole/scene/minds/reach.hpp"
#include "vole/world/mind.hpp"
#include "vole/world/side_mover.hpp"
#include "yard.hpp"

namespace {

using vole::Entity;
using vole::Vec2;

const std::string tiles =
    "rungs = { colour = \"#c98b4a\", ladder = {} }\n"
    "top = { colour = \"#c98b4a\", shape = \"upper half\", one_way = \"up\", ladder = {} }\n"
    "ice = { colour = \"#9fd6d2\", solid = true, friction = 0.1 }\n";
const std::string letters = "\"H\" = \"rungs\"\n\"T\" = \"top\"\n\"I\" = \"ice\"\n";

using Rows = std::vector<std::string>;
Rows empty_rows() {
  Rows rows(16, std::string(40, '.'));
  rows[15] = std::string(40, '#');
  return rows;
}
std::string text_of(const Rows& rows) {
  std::string text;
  for (const std::string& row : rows) text += "\"" + row + "\",\n";
  return text;
}

// A stoat that chases a hare that stands still.
struct Chase : Yard {
  Entity stoat, hare;

  Chase(const Rows& rows, Vec2 from, Vec2 to, const std::string& numbers = {}, bool finds_way = true)
      : Yard(fmt::format("[stoat]\nbody = {{ size = [10, 12], category = \"walkers\" }}\n"
                         "side_mover = {{ jump = 280, gravity = 900{} }}\n"
                         "mind = [{{ does = \"chase\", of = \"hare\", within = 4000, finds_way = {} }}]\n"
                         "[hare]\nbody = {{ size = [8, 8], category = \"seeds\" }}\n",
                         numbers, finds_way),
             tiles, text_of(rows), {}, letters),
        stoat(stage->spawn("stoat", from)),
        hare(stage->spawn("hare", to)) {}

  float distance() { return vole::length_of(pose(stoat).at - pose(hare).at); }
  // In how many ticks it gets there; -1: not in so many.
  int arrives(int within) {
    for (int i = 0; i < within; ++i) {
      if (distance() < 12 && touching(stoat).ground) return i;
      tick();
    }
    return -1;
  }
  void restore(const vole::StateBytes& state) {
    vole::StateReader in(state);
    running->read(in);
    running->bind();
  }
};

Vec2 on_row(std::size_t column, std::size_t row) {
  return {static_cast<float>(column) * 16 + 8, static_cast<float>(row) * 16};
}

}  // namespace

TEST_CASE("who finds a way jumps, drops and climbs to where it cannot walk") {
  Rows stairs = empty_rows();
  for (std::size_t i = 0; i < 5; ++i)
    for (std::size_t x = 0; x < 3; ++x) stairs[13 - 2 * i][8 + 5 * i + x] = '#';
  Rows planks = empty_rows();
  for (const std::size_t row : {5u, 7u, 9u, 11u, 13u}) planks[row].replace(10, 8, "========");
  Rows ladder = empty_rows();
  for (std::size_t x = 0; x < 30; ++x) ladder[6][x] = '#';
  ladder[6][20] = 'T';
  for (std::size_t y = 7; y < 15; ++y) ladder[y][20] = 'H';
  // Which only a jump from a run crosses.
  Rows gap = empty_rows();
  for (std::size_t x = 0; x < 40; ++x) gap[9][x] = x < 10 || x > 13 ? '#' : '.';
  const Vec2 left = on_row(3, 15), right = on_row(36, 15);
  struct Course {
    const char* name;
    Rows rows;
    Vec2 from, to;
    const char* numbers;
  };
  for (const Course& course : {Course{"up the stairs", stairs, left, on_row(29, 5), ""},
                               Course{"down the stairs", stairs, on_row(29, 5), left, ""},
                               Course{"up through the planks", planks, left, on_row(14, 5), ""},
                               Course{"down through the planks", planks, on_row(14, 5), on_row(14, 13), ""},
                               Course{"up the ladder", ladder, right, on_row(5, 6), ", climb = 60"},
                               Course{"down the ladder", ladder, on_row(5, 6), left, ", climb = 60"},
                               Course{"over the gap", gap, on_row(2, 9), on_row(30, 9), ", speed = 100"}}) {
    CAPTURE(course.name);
    Chase with(course.rows, course.from, course.to, course.numbers);
    const int ticks = with.arrives(2400);
    CHECK(ticks > 0);
    if (std::string(course.name) == "down the stairs") continue;  // there one only walks
    Chase without(course.rows, course.from, course.to, course.numbers, false);
    const int plainly = without.arrives(2400);
    CHECK((plainly < 0 || std::string(course.name) == "over the gap"));
  }
}

TEST_CASE("what the search reaches, a mind gets to nearly always, in any level; and nothing else") {
  vole::Random chance(29);
  const std::vector<std::string> abilities{"", ", climb = 60", ", air_jumps = 1", ", acceleration = 4000",
                                           ", speed = 140, step_up = 5"};
  int tried = 0, arrived = 0;
  for (int round = 0; round < cases(10); ++round) {
    Rows rows = rows_of_shelves(chance, 22, "###===H");
    rows[12][3] = rows[13][3] = rows[14][3] = '.';
    const std::string& numbers = abilities[static_cast<std::size_t>(round) % abilities.size()];
    Chase chase(rows, {56, floor_y}, {56, floor_y}, numbers);
    chase.tick(300);
    const vole::StateBytes start = chase.state();
    const vole::Reach reach(*chase.stage, chase.stoat, {600'000, 60'000});
    for (const vole::Ledge& ledge : reach.ledges()) {
      if (ledge.spots.size() < 3) continue;
      chase.restore(start);
      chase.pose(chase.hare).at = ledge.spots[ledge.spots.size() / 2];
      const int ticks = chase.arrives(1500);
      CAPTURE(round, numbers, text_of(rows), ledge.spots[0].x, ledge.spots[0].y);
      if (!ledge.reached && reach.complete()) CHECK(ticks < 0);
      if (!ledge.reached) continue;
      ++tried;
      if (ticks >= 0) ++arrived;
    }
  }
  CAPTURE(tried, arrived);
  CHECK(tried > 30);
  CHECK(arrived >= tried * 9 / 10);
}

TEST_CASE(
    "a state that is restored on the way goes on to the bit, where nothing is known of the ledges too") {
  Rows rows = empty_rows();
  for (std::size_t i = 0; i < 5; ++i)
    for (std::size_t x = 0; x < 3; ++x) rows[13 - 2 * i][8 + 5 * i + x] = '#';
  const Vec2 from = on_row(3, 15), to = on_row(29, 5);
  Chase first(rows, from, to);
  std::vector<vole::StateBytes> states;
  for (int i = 0; i < 900; ++i) {
    first.tick();
    states.push_back(first.state());
  }
  CHECK(first.distance() < 16);
  for (const std::size_t at : {20u, 100u, 250u, 400u, 520u}) {
    Chase again(rows, from, to);
    again.restore(states[at]);
    again.tick(899 - static_cast<int>(at));
    CAPTURE(at);
    CHECK(again.state() == states.back());
  }
}

TEST_CASE("a bridge that is built is found, and one that is gone is not gone over") {
  Rows rows = empty_rows();
  for (std::size_t x = 0; x < 40; ++x)
    if (x < 8 || x > 24) rows[6][x] = '#';
  Chase chase(rows, on_row(3, 6), on_row(35, 6));
  CHECK(chase.arrives(1200) < 0);
  // It has fallen down when it ran after the hare, and knows no way up.
  CHECK(chase.pose(chase.stoat).at.y == floor_y);
  for (int i = 0; i < 4; ++i) {
    chase.stage->level().put("ground", {22, 13 - 2 * i}, "plank");
    chase.stage->level().put("ground", {23, 13 - 2 * i}, "plank");
  }
  CHECK(chase.arrives(1200) > 0);
  chase.restore(chase.state());
  for (int i = 0; i < 4; ++i) {
    chase.stage->level().put("ground", {22, 13 - 2 * i}, "");
    chase.stage->level().put("ground", {23, 13 - 2 * i}, "");
  }
  chase.pose(chase.hare).at = on_row(3, 6);
  CHECK(chase.arrives(1200) < 0);
}

TEST_CASE("where something stands in its way that it did not know of, it takes another, or waits") {
  Rows rows = empty_rows();
  for (std::size_t x = 16; x < 24; ++x) rows[13][x] = rows[11][x] = '=';
  Chase chase(rows, on_row(3, 15), on_row(20, 11));
  // Right over one of the ends from which it could jump.
  const Entity door = chase.stage->spawn("door", on_row(16, 13));
  CHECK(chase.stage->solids().thing(door.index) != chase.stoat);
  CHECK(chase.arrives(2400) > 0);
}

TEST_CASE("in a level that is too large or without ledges a mind goes straight on, and nothing hangs") {
  Rows rows(16, std::string(40, '.'));
  Chase falls(rows, {50, 50}, {300, 60});
  falls.tick(400);
  CHECK(falls.pose(falls.stoat).at.y > 256);
  // No number of its mover makes it hang.
  vole::Random chance(5);
  for (int i = 0; i < cases(6); ++i) {
    Rows steps = empty_rows();
    for (std::size_t x = 10; x < 20; ++x) steps[13][x] = "#=I"[below(chance, 3)];
    Chase chase(steps, on_row(3, 15), on_row(14, 13),
                fmt::format(", speed = {}, acceleration = {}, fall_cap = {}", below(chance, 2) * 3000,
                            below(chance, 2) * 900000, below(chance, 2) * 90000));
    chase.tick(600);
    CHECK(std::isfinite(chase.pose(chase.stoat).at.x));
  }
}

namespace {

constexpr int many = 12;

// So many kinds of walkers after one hare, each with its own jump.
struct Hunt : Yard {
  Hunt() : Yard(kinds_text(), tiles, hunt_rows(), {}, letters) {
    for (int i = 0; i < many; ++i)
      stage->spawn(fmt::format("stoat{}", i), {40 + 30 * static_cast<float>(i), floor_y});
    stage->spawn("hare", {600, 10 * 16});
  }
  static std::string kinds_text() {
    std::string text = "[hare]\nbody = { size = [8, 8], category = \"seeds\" }\n";
    for (int i = 0; i < many; ++i)
      text += fmt::format(
          "[stoat{}]\nbody = {{ size = [10, 12], category = \"seeds\" }}\nside_mover = {{ jump = {}, gravity "
          "= 900 }}\n"
          "mind = [{{ does = \"chase\", of = \"hare\", within = 4000, finds_way = true }}]\n",
          i, 200 + 8 * i);
    return text;
  }
  static std::string hunt_rows() {
    Rows rows = empty_rows();
    rows[10] = "..........####.....#####.......#########";
    rows[13] = ".....#####......####.......####.........";
    return text_of(rows);
  }
};

}  // namespace

TEST_CASE("what many kinds of walkers know of a level is kept for all of them") {
  if (!allocations_are_counted()) return;
  Hunt hunt;
  hunt.tick(1200);
  const std::int64_t before = allocations_so_far();
  hunt.tick(60);
  CHECK(allocations_so_far() - before < 60 * many);
}

TEST_CASE(
    "a restored scene goes on with what was known of the level, to the same end as one that finds it anew") {
  Hunt hunt;
  hunt.tick(600);
  const vole::StateBytes middle = hunt.state();
  hunt.tick(60);
  const vole::StateBytes end = hunt.state();
  const auto from_middle = [&] {
    vole::StateReader in(middle);
    hunt.running->read(in);
    hunt.running->bind();
    const std::int64_t before = allocations_so_far();
    hunt.tick();
    const std::int64_t first = allocations_so_far() - before;
    hunt.tick(59);
    CHECK(hunt.state() == end);
    return first;
  };
  const std::int64_t kept = from_middle();
  hunt.setting->caches = vole::make_scene_caches();
  const std::int64_t anew = from_middle();
  if (allocations_are_counted()) CHECK(kept * 10 < anew);
}

TEST_CASE("nothing is reached where no level is loaded, and that is an error") {
  Yard yard("");
  yard.folder.write("kinds.toml", "[walker]\nbody = { size = [10, 10] }\nside_mover = { speed = 90 }\n");
  vole::Stage& stage = yard.start(yard.folder);
  const Entity walker = stage.spawn("walker", {10, 10});
  CHECK_THROWS_WITH(vole::Reach(stage, walker), Catch::Contains("no level is loaded"));
}
