// Pilots: routines, minds and what they find their way by.
#include <cmath>
#include <map>
#include <queue>

#include "vole/input/gather.hpp"
#include "vole/input/input_reader.hpp"
#include "vole/input/input_writer.hpp"
#include "vole/input/recording.hpp"
#include "vole/level/way_field.hpp"
#include "vole/world/fly_mover.hpp"
#include "vole/world/grid_mover.hpp"
#include "vole/world/live_numbers.hpp"
#include "vole/world/mind.hpp"
#include "vole/world/routine.hpp"
#include "vole/world/side_mover.hpp"
#include "vole/world/world.hpp"
#include "yard.hpp"

namespace {

using Catch::Contains;
using vole::Entity;
using vole::IVec2;
using vole::Vec2;

// A yard seen from above: open, with some walls.
std::string walls(std::initializer_list<std::pair<int, std::string>> said) {
  std::vector<std::string> rows(16, "#" + std::string(38, '.') + "#");
  rows[0] = rows[15] = std::string(40, '#');
  for (const auto& [row, text] : said) rows[static_cast<std::size_t>(row)].replace(0, text.size(), text);
  std::string all;
  for (const std::string& row : rows) all += "\"" + row + "\",\n";
  return all;
}

const std::string dog = "[dog]\nbody = { size = [10, 10], category = \"walkers\" }\n";
const std::string hare = "[hare]\nbody = { size = [8, 8], category = \"seeds\" }\ntags = [\"prey\"]\n";

struct Meadow : Yard {
  Entity thing, other;
  Meadow(const std::string& more, const std::string& rows, Vec2 at, Vec2 other_at = {-1, -1})
      : Yard(more + hare, {}, rows), thing(stage->spawn("dog", at)) {
    if (other_at.x >= 0) other = stage->spawn("hare", other_at);
  }
  Vec2 at() { return pose(thing).at; }
  float distance() { return vole::length_of(at() - pose(other).at); }
  const vole::Mind& mind() { return stage->get<vole::Mind>(thing); }
};

// All shortest lengths, by the plainest way there is.
std::map<std::pair<int, int>, int> lengths_from(IVec2 goal, const std::vector<std::string>& rows,
                                                bool slanted) {
  const auto open = [&](IVec2 cell) {
    return cell.y >= 0 && cell.x >= 0 && cell.y < static_cast<int>(rows.size()) &&
           cell.x < static_cast<int>(rows[0].size()) &&
           rows[static_cast<std::size_t>(cell.y)][static_cast<std::size_t>(cell.x)] == '.';
  };
  std::map<std::pair<int, int>, int> known{{{goal.x, goal.y}, 0}};
  // Over and over, until nothing gets shorter.
  for (bool changed = true; changed;) {
    changed = false;
    for (int y = 0; y < static_cast<int>(rows.size()); ++y)
      for (int x = 0; x < static_cast<int>(rows[0].size()); ++x)
        for (int dy = -1; dy <= 1; ++dy)
          for (int dx = -1; dx <= 1; ++dx) {
            const bool is_slanted = dx != 0 && dy != 0;
            if ((dx == 0 && dy == 0) || (is_slanted && !slanted) || !open({x, y})) continue;
            if (is_slanted && !(open({x + dx, y}) && open({x, y + dy}))) continue;
            const auto next = known.find({x + dx, y + dy});
            if (next == known.end()) continue;
            const int length = next->second + (is_slanted ? 14 : 10);
            const auto [its, is_new] = known.try_emplace({x, y}, length);
            if (!is_new && its->second <= length) continue;
            its->second = length;
            changed = true;
          }
  }
  return known;
}

}  // namespace

TEST_CASE("ways are as short as there are any, from wherever they are asked for") {
  vole::Random chance(33);
  for (int round = 0; round < cases(60); ++round) {
    const IVec2 size{4 + below(chance, 12), 4 + below(chance, 9)};
    std::vector<std::string> rows(static_cast<std::size_t>(size.y),
                                  std::string(static_cast<std::size_t>(size.x), '.'));
    for (std::string& row : rows)
      for (char& cell : row) cell = chance.chance(0.35f) ? '#' : '.';
    const IVec2 goal{below(chance, size.x), below(chance, size.y)};
    const bool slanted = chance.chance(0.5f);
    const auto known = lengths_from(goal, rows, slanted);
    std::size_t asked = 0;
    vole::WayField ways(
        {{0, 0}, size}, goal, slanted ? vole::WaySteps::eight : vole::WaySteps::four, [&](IVec2 cell) {
          ++asked;
          return rows[static_cast<std::size_t>(cell.y)][static_cast<std::size_t>(cell.x)] == '.';
        });
    for (int i = 0; i < 40; ++i) {
      const IVec2 from{below(chance, size.x + 2) - 1, below(chance, size.y + 2) - 1};
      const auto its = known.find({from.x, from.y});
      const std::optional<int> length = ways.length(from);
      CAPTURE(round, size.x, size.y, goal.x, goal.y, from.x, from.y, slanted);
      REQUIRE(length.has_value() == (its != known.end()));
      if (!length) continue;
      REQUIRE(*length == its->second);
      // Its cells are as long together.
      int sum = 0;
      IVec2 at = from;
      for (const IVec2 cell : ways.way(from)) {
        sum += cell.x != at.x && cell.y != at.y ? 14 : 10;
        at = cell;
      }
      REQUIRE(sum == *length);
      REQUIRE(at == goal);
    }
    // No cell is asked about twice.
    CHECK(asked == ways.looked_at());
    CHECK(asked <= static_cast<std::size_t>(size.x * size.y));
  }
  CHECK_THROWS_WITH(
      vole::WayField({{0, 0}, {5000, 5000}}, {0, 0}, vole::WaySteps::four, [](IVec2) { return true; }),
      Contains("at most 16777216 cells"));
}

TEST_CASE("a routine says for how long what is pushed, presses once, and begins again") {
  Yard yard(
      "[vole]\nbody = { size = [10, 10], category = \"walkers\" }\nside_mover = { speed = 60 }\n"
      "routine = { steps = [\"0.5 right\", \"3 ticks right jump\", \"2 ticks jump left\", \"0.1\", \"1 tick "
      "act dash\"], loop = true }\n");
  const Entity vole = yard.stage->spawn("vole", {100, floor_y});
  const vole::Intent& intent = yard.stage->get<vole::Intent>(vole);
  std::string said;
  for (int i = 0; i < 84; ++i) {
    yard.tick();
    said += intent.direction.x > 0 ? "r" : intent.direction.x < 0 ? "l" : "-";
    if (intent.jump_pressed) said += "J";
    if (intent.jump_held) said += "j";
    if (intent.act_pressed && intent.dash_pressed) said += "A";
  }
  const std::string once = std::string(30, 'r') + "rJjrjrjljlj------" + "-A";
  CHECK(said == once + once);
  // Not again: it wants nothing any more.
  yard.stage->get<vole::Routine>(vole).loop = false;
  yard.tick(60);
  CHECK(intent.direction == Vec2{0, 0});
  CHECK(yard.stage->get<vole::Routine>(vole).over());
}

TEST_CASE("what is wrong in routines and minds is reported at its place, with what was probably meant") {
  const std::string body = "[a]\nbody = {}\nside_mover = {}\n";
  const std::vector<std::pair<std::string, std::string>> wrong{
      {"routine = { steps = [\"1 rihgt\"] }",
       "kinds.toml:20:22: error: nothing in a routine is pushed as \"rihgt\"; did you mean \"right\"?"},
      {"routine = { steps = [\"right 1\"] }", "is no step of a routine"},
      {"routine = { steps = [\"\"] }", "is no step of a routine"},
      {"routine = { steps = [\"-1 right\"] }", "is no step of a routine"},
      {"routine = { steps = [\"nan right\"] }", "is no step of a routine"},
      {"routine = { steps = [\"1.5 ticks right\"] }", "ticks are whole"},
      {"routine = { steps = [\"1e9 right\"] }", "at most 3600"},
      {"routine = {}", "\"steps\" is missing"},
      {"mind = []", "the mind of \"a\" has no parts"},
      {"mind = [{}]", "\"does\" is missing"},
      {"mind = [{ does = \"chace\", of = \"walker\" }]", "did you mean \"chase\"?"},
      {"mind = [{ does = \"chase\" }]", "says what it is about"},
      {"mind = [{ does = \"chase\", of = \"wlaker\" }]", "no kind \"wlaker\"; did you mean \"walker\"?"},
      {"mind = [{ does = \"wander\", of = \"walker\" }]", "is about nothing"},
      {"mind = [{ does = \"wander\", path = \"round\" }]", "follows no path"},
      {"mind = [{ does = \"follow path\" }]", "names it"},
      {"mind = [{ does = \"act\" }]", "says how often"},
      {"mind = [{ does = \"wander\", finds_way = true }]", "finds no way"},
      {"mind = [{ does = \"wait\", when = [\"groundde\"] }]", "no fact \"groundde\" of \"a\""},
      {"mind = [{ does = \"wait\", when = [\"vx <\"] }]", "vx <"},
      {"mind = [{ does = \"wait\" }, { does = \"wander\" }]", "no part from here on ever decides"},
      {"mind = [{ does = \"wander\" }]\nplayer = {}", "is steered by a mind and by a player"},
  };
  for (const auto& [text, message] : wrong) {
    Yard yard(body + text + "\n");
    CAPTURE(text);
    CHECK_THROWS_WITH(yard.stage->spawn("a", {0, 0}), Contains(message));
  }
  Yard yard(body + "mind = [{ does = \"follow path\", path = \"round\" }]\n");
  CHECK_THROWS_WITH(yard.stage->spawn("a", {0, 0}), Contains("no path \"round\""));
}

TEST_CASE("patrolling turns at walls and where the ground ends, and nowhere else") {
  const auto range = [](const std::string& rows, Vec2 from) {
    Yard yard(
        "[beetle]\nbody = { size = [10, 8], category = \"walkers\" }\nside_mover = { speed = 80 }\nmind = [{ "
        "does = \"patrol\" }]\n",
        {}, rows);
    const Entity beetle = yard.stage->spawn("beetle", from);
    float least = from.x, most = from.x;
    for (int i = 0; i < 1200; ++i) {
      yard.tick();
      least = std::min(least, yard.pose(beetle).at.x);
      most = std::max(most, yard.pose(beetle).at.x);
      REQUIRE(yard.pose(beetle).at.y == from.y);
    }
    return std::pair{least, most};
  };
  std::vector<std::string> rows(16, std::string(40, '.'));
  rows[10] = "......##########.......................#";
  rows[9] = ".................#.....................#";
  std::string text;
  for (const std::string& row : rows) text += "\"" + row + "\",\n";
  const auto [left, right] = range(text, {140, 160});
  CHECK(left == Approx(6 * 16 + 5).margin(3));
  CHECK(right == Approx(16 * 16 - 5).margin(3));
  rows[10] = "...########################.............";
  rows[9] = "...#.....................#..............";
  text.clear();
  for (const std::string& row : rows) text += "\"" + row + "\",\n";
  const auto [from_wall, to_wall] = range(text, {140, 160});
  CHECK(from_wall == Approx(4 * 16 + 5).margin(0.1));
  CHECK(to_wall == Approx(25 * 16 - 5).margin(0.1));
}

TEST_CASE("what is seen is chased, and walls stop sight; it is looked for where it was last, for a while") {
  const std::string hunts = dog +
                            "top_mover = { speed = 60 }\nmind = [{ does = \"chase\", name = \"hunting\", of "
                            "= \"tagged prey\", within = 150, seen = true, remembers = 1 }]\n";
  const std::string wall = walls(
      {{5, "#.........######"}, {6, "#.........#...."}, {7, "#.........#...."}, {8, "#.........#...."}});
  Meadow behind(hunts, wall, {120, 120}, {200, 120});
  behind.tick(30);
  CHECK(behind.at() == Vec2{120, 120});
  CHECK(behind.mind().part == -1);
  Meadow seen(hunts, walls({}), {120, 120}, {200, 120});
  seen.tick(30);
  CHECK(seen.at().x > 140);
  CHECK(seen.at().y == Approx(120).margin(1));
  // It is gone behind a wall: on to where it was, and then no more.
  seen.stage->get<vole::Pose>(seen.other).at = {600, 200};
  seen.tick(30);
  CHECK(seen.at().x > 160);
  seen.tick(120);
  const Vec2 stands = seen.at();
  CHECK(stands.x < 205);
  seen.tick(30);
  CHECK(seen.at() == stands);
  // Too far off.
  Meadow far(hunts, walls({}), {120, 120}, {271, 120});
  far.tick(30);
  CHECK(far.at() == Vec2{120, 120});
}

TEST_CASE("fleeing and keeping a distance come to where they should") {
  Meadow flees(dog + "top_mover = { speed = 60 }\nmind = [{ does = \"flee\", of = \"hare\", within = 80 }]\n",
               walls({}), {320, 120}, {300, 120});
  flees.tick(120);
  CHECK(flees.distance() == Approx(80).margin(6));
  CHECK(flees.mind().part == -1);
  vole::Random chance(2);
  for (int i = 0; i < cases(10); ++i) {
    const Vec2 from{chance.within(200, 400), chance.within(60, 200)};
    Meadow keeps(dog +
                     "top_mover = { speed = 60, acceleration = 2000, deceleration = 2000 }\nmind = [{ does = "
                     "\"keep distance\", of = \"tagged prey\", within = 300, distance = 50 }]\n",
                 walls({}), from, {300, 128});
    keeps.tick(300);
    CAPTURE(from.x, from.y);
    CHECK(keeps.distance() == Approx(50).margin(6));
  }
}

TEST_CASE("a way is found around walls, on lanes and across the open, as short as there is one") {
  std::vector<std::string> rows(16, std::string(40, '#'));
  // A snake of lanes.
  for (std::size_t y = 1; y < 14; y += 2) rows[y] = "#" + std::string(38, '.') + "#";
  for (std::size_t y = 2; y < 14; y += 2) rows[y][y % 4 == 2 ? 38 : 1] = '.';
  std::string text;
  for (const std::string& row : rows) text += "\"" + row + "\",\n";
  const int length =
      static_cast<int>(
          vole::WayField({{0, 0}, {40, 16}}, {2, 13}, vole::WaySteps::four,
                         [&](IVec2 cell) {
                           return rows[static_cast<std::size_t>(cell.y)][static_cast<std::size_t>(cell.x)] ==
                                  '.';
                         })
              .length({1, 1})
              .value()) /
      10;
  for (const char* mover : {"grid_mover = { speed = 240 }",
                            "top_mover = { speed = 240, acceleration = 100000, deceleration = 100000 }"}) {
    Meadow meadow(fmt::format("[dog]\nbody = {{ size = [16, 16], category = \"walkers\" }}\n{}\nmind = [{{ "
                              "does = \"chase\", of = \"hare\", within = 2000, finds_way = true }}]\n",
                              mover),
                  text, {24, 32}, {40, 220});
    int ticks = 0;
    for (; ticks < 3000 && meadow.distance() > 20; ++ticks) meadow.tick();
    CAPTURE(mover, length);
    CHECK(ticks < 3000);
    // Not much longer than the way itself, at 4 pixels a tick.
    CHECK(ticks < length * 16 / 4 * 1.4);
    CHECK(ticks > length * 16 / 4 * 0.8);
  }
}

TEST_CASE("who wanders is never held for long, and two with the same seed go the same way") {
  const auto wander = [](const char* mover) {
    Meadow meadow(dog + mover + "\nmind = [{ does = \"wander\", seconds = 0.5 }]\n",
                  walls({{7, "#######......########"}, {8, "#.....#............"}}), {200, 104});
    std::vector<Vec2> way;
    std::set<std::pair<int, int>> cells;
    for (int i = 0; i < 1800; ++i) {
      meadow.tick();
      way.push_back(meadow.at());
      cells.insert({static_cast<int>(meadow.at().x / 16), static_cast<int>(meadow.at().y / 16)});
    }
    CHECK(cells.size() > 25);
    return way;
  };
  for (const char* mover : {"grid_mover = { speed = 60 }", "top_mover = { speed = 60 }",
                            "fly_mover = { thrust = 200, drag = 3 }"}) {
    CAPTURE(mover);
    CHECK(wander(mover) == wander(mover));
  }
}

TEST_CASE("a path is followed there and back, or round and round, by what walks and what flies") {
  std::string path = "[[paths]]\nname = \"round\"\npoints = [[60, 60], [300, 60], [300, 180]]\n";
  for (const bool closed : {false, true})
    for (const char* mover : {"top_mover = { speed = 80, acceleration = 1000, deceleration = 1000 }",
                              "fly_mover = { thrust = 500, drag = 5, steering = \"turns\", turn = 360 }"}) {
      Yard yard(dog + mover + "\nmind = [{ does = \"follow path\", path = \"round\" }]\n", {}, walls({}), {},
                path + (closed ? "closed = true\n" : ""));
      const Entity thing = yard.stage->spawn("dog", {60, 60});
      const vole::LevelPath& round = yard.stage->path("round");
      float furthest = 0;
      std::array<int, 3> visits{};
      std::array<bool, 3> there{};
      for (int i = 0; i < 2400; ++i) {
        yard.tick();
        const Vec2 at = yard.pose(thing).at;
        furthest = std::max(furthest, vole::length_of(round.at(round.nearest(at)) - at));
        for (std::size_t k = 0; k < 3; ++k) {
          const bool near =
              vole::length_of(std::array{Vec2{60, 60}, Vec2{300, 60}, Vec2{300, 180}}[k] - at) < 20;
          visits[k] += near && !there[k] ? 1 : 0;
          there[k] = near;
        }
      }
      CAPTURE(mover, closed);
      CHECK(furthest < 24);
      CHECK(visits[0] >= 3);
      CHECK(visits[2] >= 3);
      // On an open way its middle is passed twice as often.
      CHECK((visits[1] > visits[2] + 1) == !closed);
    }
}

TEST_CASE("the first part that applies decides; times, conditions and holding are as said") {
  Yard yard(
      "[bird]\nbody = { size = [6, 6], category = \"seeds\" }\ntop_mover = { speed = 60 }\n"
      "probes.food = { area = [-20, -20, 40, 40], categories = [\"crates\"] }\n"
      "mind = [{ does = \"act\", every = 0.5 }, { does = \"wait\", name = \"eats\", when = [\"food\"], hold "
      "= 1 }, { does = \"wait\", every = 2, seconds = 0.5 }, { does = \"patrol\" }]\n");
  const Entity bird = yard.stage->spawn("bird", {100, 100});
  const vole::Mind& mind = yard.stage->get<vole::Mind>(bird);
  const vole::Intent& intent = yard.stage->get<vole::Intent>(bird);
  std::string parts;
  int acts = 0;
  for (int i = 0; i < 240; ++i) {
    yard.tick();
    parts += static_cast<char>('0' + mind.part);
    acts += intent.act_pressed ? 1 : 0;
    // Acting, it goes on as it went.
    if (mind.part == 0 && i % 120 < 80) CHECK(intent.direction.x != 0);
  }
  CHECK(acts == 8);
  const std::string two_seconds = std::string(29, '3') + "0" + std::string(29, '3') + "0" +
                                  std::string(29, '3') + "0" + std::string(29, '2') + "0";
  CHECK(parts == two_seconds + two_seconds);
  const Entity crate = yard.stage->spawn("crate", yard.pose(bird).at);
  yard.tick();
  CHECK(mind.part == 1);
  yard.stage->remove(crate);
  // For a second it goes on eating, also when it would be time to act.
  yard.tick(58);
  CHECK(mind.part == 1);
  yard.tick(3);
  CHECK(mind.part != 1);
}

TEST_CASE("a mover cannot tell its pilots apart: a player, a routine, a mind and a recording move it alike") {
  // To the right until the wall, and back, and so on: what a mind that patrols does, as a routine and as keys.
  const std::string kinds =
      "[%]\nbody = { size = [10, 10], category = \"walkers\" }\nside_mover = { speed = 90 }\n";
  const auto kind = [&](const char* name, const std::string& pilot) {
    std::string text = kinds;
    text.replace(text.find('%'), 1, name);
    return text + pilot + "\n";
  };
  Yard yard(kind("minded", "mind = [{ does = \"patrol\" }]") + kind("player", "player = {}") +
            kind("follower", "routine = { steps = [] }") + kind("plain", ""));
  yard.folder.write("controls.toml",
                    "[actions]\njump = [\"key Space\"]\n[axes.walk]\nless = [\"key ArrowLeft\"]\nmore = "
                    "[\"key ArrowRight\"]\n");
  vole::Stage& stage = yard.start(yard.folder);
  stage.load_level("yard");
  const Entity minded = stage.spawn("minded", {400, floor_y});
  std::vector<Vec2> way;
  std::vector<float> pushed;
  for (int i = 0; i < 900; ++i) {
    yard.tick();
    way.push_back(stage.get<vole::Pose>(minded).at);
    pushed.push_back(stage.get<vole::Intent>(minded).direction.x);
  }
  REQUIRE(*std::min_element(pushed.begin(), pushed.end()) == -1);
  stage.remove(minded);
  yard.tick();
  const auto follows = [&](Entity thing, const std::function<void(std::size_t)>& before_tick) {
    for (std::size_t i = 0; i < way.size(); ++i) {
      before_tick(i);
      yard.tick();
      CAPTURE(i);
      REQUIRE(stage.get<vole::Pose>(thing).at == way[i]);
    }
    stage.remove(thing);
    yard.input = vole::TickInput(yard.setting->controls);
    yard.tick();
  };
  // The routine: each stretch of the same push is a step.
  const Entity follower = stage.spawn("follower", {400, floor_y});
  vole::Routine& routine = stage.get<vole::Routine>(follower);
  for (std::size_t i = 0, from = 0; i <= pushed.size(); ++i)
    if (i == pushed.size() || pushed[i] != pushed[from]) {
      routine.steps.push_back(
          {fmt::format("{} ticks {}", i - from, pushed[from] > 0 ? "right" : "left"), {}});
      from = i;
    }
  follows(follower, [](std::size_t) {});
  // A person at the keys, and what was recorded of that.
  vole::InputGather gather(yard.setting->controls);
  vole::Recording recording;
  vole::InputWriter writer(*yard.setting->controls);
  const Entity player = stage.spawn("player", {400, floor_y});
  follows(player, [&](std::size_t i) {
    gather.add({*vole::find_control("key ArrowRight"), pushed[i] > 0 ? 1.0f : 0.0f});
    gather.add({*vole::find_control("key ArrowLeft"), pushed[i] < 0 ? 1.0f : 0.0f});
    yard.input = gather.latch();
    writer.add(static_cast<std::int64_t>(i), yard.input, recording.inputs);
  });
  vole::InputReader reader(recording, *yard.setting->controls);
  const Entity recorded = stage.spawn("player", {400, floor_y});
  follows(recorded, [&](std::size_t) { yard.input = reader.next(); });
}

TEST_CASE("the nearest of many is found as a plain look at all of them finds it") {
  vole::Random chance(6);
  Yard yard(
      dog + "top_mover = { speed = 0 }\nmind = [{ does = \"chase\", of = \"tagged prey\", within = 40 }]\n" +
          hare,
      {}, walls({}));
  std::vector<Entity> dogs, hares;
  for (int i = 0; i < 60; ++i)
    dogs.push_back(yard.stage->spawn("dog", {chance.within(20, 620), chance.within(20, 230)}));
  for (int i = 0; i < 40; ++i)
    hares.push_back(yard.stage->spawn("hare", {chance.within(20, 620), chance.within(20, 230)}));
  yard.tick();
  int found = 0;
  for (const Entity each : dogs) {
    const vole::Rect own = yard.stage->box(each);
    std::optional<Vec2> nearest;
    for (const Entity other : hares) {
      const vole::Rect box = yard.stage->box(other);
      const Vec2 off = box.at + box.size * 0.5f - own.at - own.size * 0.5f;
      if (vole::length_of(off) < (nearest ? vole::length_of(*nearest) : 40)) nearest = off;
    }
    const Vec2 pushed = yard.stage->get<vole::Intent>(each).direction;
    found += nearest ? 1 : 0;
    const Vec2 expected = nearest ? *nearest / vole::length_of(*nearest) : Vec2{0, 0};
    CHECK(vole::length_of(pushed - expected) < 0.001f);
  }
  CHECK(found > 20);
  CHECK(found < 60);
}

TEST_CASE(
    "what a mind and a routine say is live: things go by the new text, but where their place says its own") {
  Yard yard(dog +
                "top_mover = { speed = 60 }\nmind = [{ does = \"wait\" }]\n"
                "[walks]\nbody = { size = [8, 8] }\ntop_mover = {}\nroutine = { steps = [\"100 right\"] }\n",
            {}, walls({}));
  const Entity thing = yard.stage->spawn("dog", {200, 100}), other = yard.stage->spawn("walks", {300, 100});
  yard.tick(10);
  CHECK(yard.pose(thing).at.x == 200);
  std::string kinds = vole::read_text(yard.folder.path("kinds.toml"), 10000);
  kinds.replace(kinds.find("does = \"wait\""), 13, "does = \"patrol\"");
  kinds.replace(kinds.find("100 right"), 9, "100 left");
  yard.folder.write("kinds.toml", kinds);
  yard.kinds =
      vole::read_kinds(yard.folder.path(), vole::read_project(yard.folder.path("game.toml")).categories);
  vole::Report wrong;
  for (const auto& [before, now] : yard.compiled->recompile(wrong))
    vole::change_numbers(const_cast<vole::World&>(yard.stage->world()), *before, *now);
  CHECK(wrong.problems().empty());
  const float x = yard.pose(other).at.x;
  yard.tick(30);
  CHECK(yard.pose(thing).at.x > 210);
  CHECK(yard.pose(other).at.x < x);
}

TEST_CASE("other steps, parts and conditions count from the tick in which code says them, restored or not") {
  Yard yard(
      "[runner]\nbody = { size = [10, 10], category = \"walkers\" }\ntop_mover = { speed = 60 }\n"
      "routine = { steps = [\"10 right\", \"10 up\"] }\n"
      "[thinker]\nbody = { size = [10, 10], category = \"walkers\" }\ntop_mover = { speed = 60 }\n"
      "[[thinker.mind]]\ndoes = \"patrol\"\nwhen = [\"speed > 1000\"]\n[[thinker.mind]]\ndoes = \"wait\"\n");
  const Entity runner = yard.stage->spawn("runner", {100, 100}),
               thinker = yard.stage->spawn("thinker", {300, 100});
  yard.tick(5);
  const Vec2 before = yard.pose(runner).at, waited = yard.pose(thinker).at;
  vole::Routine& routine = yard.stage->get<vole::Routine>(runner);
  routine.steps = {{"10 left", {}}, {"10 down", {}}};  // as many as before
  yard.stage->get<vole::Mind>(thinker).parts[0].value.when = {{"speed >= 0", {}}};
  const vole::StateBytes changed = yard.state();
  yard.tick(20);
  CHECK(yard.pose(runner).at.x < before.x - 10);
  CHECK(yard.pose(thinker).at != waited);
  const vole::StateBytes end = yard.state();
  vole::StateReader in(changed);
  yard.running->read(in);
  yard.running->bind();
  yard.tick(20);
  CHECK(yard.state() == end);
}

TEST_CASE(
    "a mind goes on to another path where that is nearest, not as far along as it was on the one before") {
  Yard yard(
      "[guard]\nbody = { size = [6, 6], category = \"walkers\" }\ntop_mover = { speed = 90 }\n"
      "[[guard.mind]]\ndoes = \"follow path\"\npath = \"far\"\nwhen = [\"speed >= 0\"]\n"
      "[[guard.mind]]\ndoes = \"follow path\"\npath = \"near\"\n",
      {}, {}, {},
      "[[paths]]\nname = \"far\"\npoints = [[60, 60], [560, 60]]\n"
      "[[paths]]\nname = \"near\"\npoints = [[560, 180], [60, 180]]\n");
  const Entity guard = yard.stage->spawn("guard", {60, 60});
  yard.tick(200);
  const Vec2 left = yard.pose(guard).at;
  REQUIRE(left.x > 300);
  yard.stage->get<vole::Mind>(guard).parts[0].value.when = {{"speed > 1000", {}}};
  for (int i = 0; i < 200 && yard.pose(guard).at.y < 170; ++i) yard.tick();
  CHECK(yard.pose(guard).at.x > left.x - 40);
  CHECK(yard.pose(guard).at.x < left.x + 20);
}

TEST_CASE("a routine presses each button at the begin of a row of steps that hold it, and at no other tick") {
  const std::vector<std::string> words{"jump", "drop", "dash", "act"};
  vole::Random chance(4);
  for (int round = 0; round < cases(200); ++round) {
    vole::Routine routine;
    std::vector<std::vector<bool>> held;  // of each tick, of each word
    for (std::uint32_t steps = 1 + chance.below(6); steps > 0; --steps) {
      const std::uint32_t ticks = 1 + chance.below(3);
      std::string text = std::to_string(ticks) + " ticks";
      std::vector<bool> pushed;
      for (const std::string& word : words) {
        pushed.push_back(chance.chance(0.4f));
        if (pushed.back()) text += " " + word;
      }
      routine.steps.push_back({text, {}});
      held.insert(held.end(), ticks, pushed);
    }
    std::vector<bool> before(words.size(), false);
    for (const std::vector<bool>& now : held) {
      const vole::Intent intent = vole::next_intent(routine, 60);
      const bool presses[] = {intent.jump_pressed, intent.drop_pressed, intent.dash_pressed,
                              intent.act_pressed};
      for (std::size_t i = 0; i < words.size(); ++i) REQUIRE(presses[i] == (now[i] && !before[i]));
      REQUIRE(intent.jump_held == now[0]);
      REQUIRE(intent.act_held == now[3]);
      before = now;
    }
    CHECK(vole::next_intent(routine, 60).direction == Vec2{0, 0});
    CHECK(routine.over());
  }
}
