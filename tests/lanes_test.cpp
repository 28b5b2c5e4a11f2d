// Movers on lanes: whatever is pushed, they are on a lane, never in a wall, and never stuck where a way is open.
#include <algorithm>
#include <cmath>
#include <set>
#include <tuple>
#include <vector>

#include "vole/draw/raster.hpp"
#include "vole/world/grid_mover.hpp"
#include "vole/world/level_edge.hpp"
#include "yard.hpp"

namespace {

using vole::Entity;
using vole::IVec2;
using vole::Vec2;

// Walls and lanes by chance, with ways out on the left, right, top and bottom that face each other.
struct Maze {
  IVec2 size{0, 0};
  std::vector<std::string> rows;

  Maze(vole::Random& chance, IVec2 its_size) : size(its_size) {
    rows.assign(static_cast<std::size_t>(size.y), std::string(static_cast<std::size_t>(size.x), '#'));
    dig({1, 1}, chance);
    for (int i = 0; i < size.x * size.y / 12; ++i)
      open({1 + below(chance, size.x - 2), 1 + below(chance, size.y - 2)});
    for (int i = 0; i < 2; ++i) {
      const int y = 1 + 2 * below(chance, size.y / 2);
      const int x = 1 + 2 * below(chance, size.x / 2);
      open({0, y});
      open({size.x - 1, y});
      open({x, 0});
      open({x, size.y - 1});
    }
  }
  void open(IVec2 cell) { rows[static_cast<std::size_t>(cell.y)][static_cast<std::size_t>(cell.x)] = '.'; }
  // Behind an edge it goes on at the other.
  bool is_open(IVec2 cell) const {
    const auto x = static_cast<std::size_t>((cell.x + size.x) % size.x);
    const auto y = static_cast<std::size_t>((cell.y + size.y) % size.y);
    return rows[y][x] == '.';
  }
  std::string text() const {
    std::string text;
    for (const std::string& row : rows) text += "\"" + row + "\",\n";
    return text;
  }

 private:
  void dig(IVec2 from, vole::Random& chance) {
    open(from);
    std::vector<IVec2> ways{{2, 0}, {-2, 0}, {0, 2}, {0, -2}};
    while (!ways.empty()) {
      const auto pick = static_cast<std::size_t>(below(chance, static_cast<int>(ways.size())));
      const IVec2 way = ways[pick], to = from + way;
      ways.erase(ways.begin() + static_cast<std::ptrdiff_t>(pick));
      if (to.x < 1 || to.y < 1 || to.x > size.x - 2 || to.y > size.y - 2 || is_open(to)) continue;
      open(from + way / 2);
      dig(to, chance);
    }
  }
};

constexpr const char* open_sides =
    "[sides]\nleft = \"open\"\nright = \"open\"\ntop = \"open\"\nbottom = \"open\"\n";

struct Lanes : Yard {
  Maze maze;
  Entity thing;
  Vec2 body;

  Lanes(const Maze& its_maze, Vec2 its_body, const std::string& mover)
      : Yard(fmt::format(
                 "[cart]\nbody = {{ size = [{}, {}], category = \"walkers\" }}\ngrid_mover = {{ {} }}\n"
                 "level_edge = {{ sides = \"wrap\", top = \"wrap\" }}\n",
                 its_body.x, its_body.y, mover),
             {}, its_maze.text(), {}, open_sides),
        maze(its_maze),
        body(its_body) {
    thing = stage->spawn("cart", {24, 24 + body.y / 2});
  }
  Vec2 middle() { return pose(thing).at - Vec2{0, body.y / 2}; }
  bool on_line(float at) const { return std::fmod(at + 160 - 8, 16.0f) == 0; }
  bool on_crossing() { return on_line(middle().x) && on_line(middle().y); }
  IVec2 cell() {
    return {static_cast<int>(std::floor(middle().x / 16)), static_cast<int>(std::floor(middle().y / 16))};
  }
  void push(Vec2 direction) { stage->get<vole::Intent>(thing).direction = direction; }
  bool in_wall() {
    const vole::Rect box{middle() - body * 0.5f, body};
    for (int y = static_cast<int>(std::floor(box.top() / 16)); static_cast<float>(y) * 16 < box.bottom(); ++y)
      for (int x = static_cast<int>(std::floor(box.left() / 16)); static_cast<float>(x) * 16 < box.right();
           ++x)
        if (!maze.is_open({x, y})) return true;
    return false;
  }
};

}  // namespace

TEST_CASE(
    "whatever is pushed, what goes along lanes is on one, in no wall, and not stuck where a way is open") {
  vole::Random chance(81);
  const std::vector<Vec2> bodies{{16, 16}, {16, 10}, {9, 16}, {15.5f, 12}};
  int moved = 0, stood = 0, wrapped = 0;
  for (int round = 0; round < cases(12); ++round) {
    const Maze maze(chance, {9 + 2 * below(chance, 6), 9 + 2 * below(chance, 4)});
    const Vec2 body = bodies[static_cast<std::size_t>(below(chance, 4))];
    const bool keeps_going = chance.chance(0.5f);
    const float speed = chance.within(20, 500);
    Lanes lanes(maze, body, fmt::format("speed = {}, keeps_going = {}", speed, keeps_going));
    lanes.tick();
    Vec2 pushed{0, 0};
    int quiet = 0;
    for (int i = 0; i < 1500; ++i) {
      if (below(chance, 12) == 0)
        pushed = {static_cast<float>(below(chance, 3)) - 1, static_cast<float>(below(chance, 3)) - 1};
      lanes.push(pushed);
      const IVec2 cell = lanes.cell();
      const bool was_on_crossing = lanes.on_crossing();
      const Vec2 before = lanes.middle();
      lanes.tick();
      const Vec2 now = lanes.middle();
      CAPTURE(round, i, maze.text(), body.x, body.y, speed, keeps_going, before.x, before.y, now.x, now.y,
              pushed.x, pushed.y);
      REQUIRE((lanes.on_line(now.x) || lanes.on_line(now.y)));
      REQUIRE_FALSE(lanes.in_wall());
      const IVec2 across{static_cast<int>(pushed.x), 0}, down{0, static_cast<int>(pushed.y)};
      const bool way_open =
          (across.x != 0 && maze.is_open(cell + across)) || (down.y != 0 && maze.is_open(cell + down));
      if (was_on_crossing && way_open) {
        REQUIRE(now != before);
        ++moved;
      }
      // What stops, stops on a crossing.
      if (now == before) {
        REQUIRE(lanes.on_crossing());
        ++stood;
      }
      quiet = pushed == Vec2{0, 0} ? quiet + 1 : 0;
      if (!keeps_going && quiet > static_cast<int>(60 * (16 / speed + 0.4f)) + 2) REQUIRE(now == before);
      if (std::abs(now.x - before.x) > 64 || std::abs(now.y - before.y) > 64) ++wrapped;
      // Never outside: its middle comes in again.
      REQUIRE(now.x >= 0);
      REQUIRE(now.y >= 0);
      REQUIRE(now.x < static_cast<float>(maze.size.x) * 16);
      REQUIRE(now.y < static_cast<float>(maze.size.y) * 16);
    }
  }
  CHECK(moved > 100);
  CHECK(stood > 100);
  CHECK(wrapped > 5);
}

TEST_CASE("a body as wide as its lane takes a corner in all four directions, from both sides") {
  vole::Random chance(5);
  // A cross of lanes.
  Maze maze(chance, {9, 9});
  for (int i = 0; i < 81; ++i)
    maze.rows[static_cast<std::size_t>(i / 9)][static_cast<std::size_t>(i % 9)] = '#';
  for (int i = 1; i < 8; ++i) {
    maze.open({i, 4});
    maze.open({4, i});
  }
  const std::vector<IVec2> ways{{1, 0}, {0, 1}, {-1, 0}, {0, -1}};
  for (const IVec2 from : ways)
    for (const IVec2 to : ways) {
      if (from == to || from == to * -1) continue;
      Lanes lanes(maze, {16, 16}, "speed = 70");
      const IVec2 start = IVec2{4, 4} - from * 3;
      lanes.pose(lanes.thing).at = Vec2(start) * 16.0f + Vec2{8, 16};
      for (int i = 0; i < 120; ++i) {
        // The turn is pushed from before the crossing on; the way there no more.
        lanes.push(Vec2(i < 30 ? from : to));
        lanes.tick();
      }
      CAPTURE(from.x, from.y, to.x, to.y);
      CHECK(lanes.cell() == IVec2{4, 4} + to * 3);
    }
}

TEST_CASE("a turn that is asked for a little early is remembered, and forgotten after that") {
  vole::Random chance(5);
  Maze maze(chance, {9, 9});
  for (std::string& row : maze.rows) row = "#########";
  for (int x = 1; x < 8; ++x) maze.open({x, 1});
  for (int y = 1; y < 8; ++y) maze.open({5, y});
  Maze turned = maze;
  for (std::size_t y = 0; y < 9; ++y)
    for (std::size_t x = 0; x < 9; ++x) turned.rows[x][y] = maze.rows[y][x];
  // From the first cell it is at the crossing after 64 ticks.
  const auto turns = [&](int asked_at, bool down) {
    Lanes lanes(down ? maze : turned, {16, 16}, "speed = 60, keeps_going = true, early_turn = 0.3");
    const Vec2 first = down ? Vec2{1, 0} : Vec2{0, 1}, then = down ? Vec2{0, 1} : Vec2{1, 0};
    for (int i = 0; i < 120; ++i) {
      lanes.push(i == asked_at ? then : i < 3 ? first : Vec2{0, 0});
      lanes.tick();
    }
    return (down ? lanes.cell().y : lanes.cell().x) > 1;
  };
  for (const bool down : {true, false}) {
    CHECK(turns(60, down));
    CHECK(turns(48, down));
    CHECK_FALSE(turns(40, down));
    CHECK_FALSE(turns(70, down));
  }
}

TEST_CASE("who wanders on lanes goes on and on, and turns back in dead ends alone") {
  vole::Random chance(17);
  int dead_ends = 0, cells_seen = 0;
  for (int round = 0; round < cases(4); ++round) {
    const Maze maze(chance, {13, 11});
    Yard yard(
        "[hen]\nbody = { size = [16, 16], category = \"walkers\" }\ngrid_mover = { speed = 100 }\n"
        "level_edge = { sides = \"wrap\", top = \"wrap\" }\nmind = [{ does = \"wander\" }]\n",
        {}, maze.text(), {}, open_sides);
    const Entity hen = yard.stage->spawn("hen", {24, 32});
    std::set<std::pair<int, int>> seen;
    IVec2 before{0, 0};
    Vec2 last = yard.pose(hen).at;
    for (int i = 0; i < 3000; ++i) {
      yard.tick();
      const vole::GridMover& mover = yard.stage->get<vole::GridMover>(hen);
      const Vec2 middle = yard.pose(hen).at - Vec2{0, 8};
      const IVec2 cell{static_cast<int>(std::floor(middle.x / 16)),
                       static_cast<int>(std::floor(middle.y / 16))};
      seen.insert({cell.x, cell.y});
      CAPTURE(round, i, maze.text(), middle.x, middle.y);
      // It stands nowhere, but that the first tick is for looking around.
      if (i > 1) REQUIRE(yard.pose(hen).at != last);
      int ways = 0;
      for (const IVec2 way : {IVec2{1, 0}, {0, 1}, {-1, 0}, {0, -1}})
        ways += maze.is_open(cell + way) ? 1 : 0;
      // Round corners too it is as fast as ever, and only in dead ends it stops and turns back.
      const Vec2 gone = yard.pose(hen).at - yard.pose(hen).before;
      const bool slow = std::abs(gone.x) + std::abs(gone.y) < 1.6f;
      const bool turns = before != IVec2{0, 0} && mover.heading == before * -1;
      if (i > 1 && (slow || turns)) {
        REQUIRE(ways == 1);
        ++dead_ends;
      }
      before = mover.heading;
      last = yard.pose(hen).at;
    }
    cells_seen += static_cast<int>(seen.size());
  }
  CHECK(dead_ends > 5);
  CHECK(cells_seen > 80);
}

TEST_CASE(
    "what goes along lanes turns back before something that has come into its way, and waits for none") {
  vole::Random chance(5);
  Maze maze(chance, {11, 9});
  for (std::string& row : maze.rows) row = "###########";
  for (int x = 1; x < 10; ++x) maze.open({x, 1});
  Lanes lanes(maze, {16, 16}, "speed = 60");
  const Entity door = lanes.stage->spawn("door", {200, 32});
  for (int i = 0; i < 30; ++i) {
    lanes.push({1, 0});
    lanes.tick();
  }
  // Between two crossings.
  REQUIRE_FALSE(lanes.on_crossing());
  const float x = lanes.middle().x;
  lanes.pose(door).at = {x + 8 + 3, 32};
  for (int i = 0; i < 60; ++i) {
    lanes.push({1, 0});
    lanes.tick();
    CHECK(lanes.on_line(lanes.middle().y));
    CHECK_FALSE(lanes.stage->overlap(lanes.thing, door));
  }
  lanes.push({0, 0});
  for (int i = 0; i < 60; ++i) lanes.tick();
  CHECK(lanes.on_crossing());
}

TEST_CASE("what wraps is held where there is a wall on the other side") {
  vole::Random chance(5);
  Maze maze(chance, {9, 9});
  for (std::string& row : maze.rows) row = "#########";
  for (int x = 0; x < 9; ++x) maze.open({x, 1});
  for (int x = 3; x < 9; ++x) maze.open({x, 3});
  for (const int row : {1, 3}) {
    Lanes lanes(maze, {16, 16}, "speed = 60");
    lanes.pose(lanes.thing).at = {7 * 16 + 8, static_cast<float>(row) * 16 + 16};
    bool crossed = false;
    for (int i = 0; i < 60; ++i) {
      lanes.push({1, 0});
      lanes.tick();
      crossed = crossed || lanes.cell().x < 3;
    }
    CHECK(crossed == (row == 1));
    CHECK(lanes.cell().x == (row == 1 ? 2 : 8));
  }
}

TEST_CASE("while it crosses an edge of the level a thing is shown on both sides, with what it carries") {
  std::vector<std::string> rows(16, std::string(40, '.'));
  std::string text;
  for (const std::string& row : rows) text += "\"" + row + "\",\n";
  Yard yard(
      "[cart]\nsprite = { sheet = \"cart\", layer = \"ground\" }\nbody = { size = [16, 16], category = "
      "\"seeds\" }\n"
      "grid_mover = { speed = 60 }\nlevel_edge = { sides = \"wrap\", top = \"wrap\" }\ncarries = { roof = "
      "\"flag\" }\n"
      "[flag]\nsprite = { sheet = \"flag\", layer = \"ground\", depth = 1 }\n",
      {}, text,
      {"assets/cart.sheet.toml",
       "colour = \"#b3485a\"\nsize = [16, 16]\npivot = \"bottom\"\n[points.roof]\nat = [8, 2]\n"},
      open_sides);
  yard.folder.write("assets/flag.sheet.toml", "colour = \"#eda63f\"\nsize = [4, 4]\n");
  vole::Stage& stage = yard.start(yard.folder);
  stage.load_level("yard");
  stage.camera().canvas = {640, 256};
  stage.camera().jump_to({320, 128});
  const auto places_of = [&](vole::Colour colour) {
    vole::DrawList list;
    list.start({640, 256});
    yard.running->draw(list, 1);
    list.sort();
    vole::Image image({640, 256}, {0, 0, 0, 255});
    vole::Raster().draw(list, image);
    std::set<std::pair<int, int>> cells;
    for (int y = 0; y < 256; ++y)
      for (int x = 0; x < 640; ++x)
        if (image.at(x, y) == colour) cells.insert({x, y});
    return cells;
  };
  const vole::Colour red{0xb3, 0x48, 0x5a, 0xff}, gold{0xed, 0xa6, 0x3f, 0xff};
  // Half over an edge, or over a corner, all of it is seen: as much as in the middle.
  const Entity cart = stage.spawn("cart", {328, 128});
  const std::size_t whole = places_of(red).size(), flag = places_of(gold).size();
  REQUIRE(whole > 100);
  // A plain sheet has a rim of another colour.
  REQUIRE(flag == 4);
  for (const Vec2 at :
       {Vec2{640, 128}, {0, 128}, {328, 8}, {328, 256 + 8}, {0, 8}, {640, 256 + 8}, {638, 128}}) {
    stage.get<vole::Pose>(cart).at = stage.get<vole::Pose>(cart).before = at;
    CAPTURE(at.x, at.y);
    const auto seen = places_of(red);
    CHECK(seen.size() == whole);
    const auto on_both = [&](bool across) {
      return std::any_of(seen.begin(), seen.end(),
                         [&](auto cell) { return (across ? cell.first : cell.second) < 20; }) &&
             std::any_of(seen.begin(), seen.end(),
                         [&](auto cell) { return (across ? cell.first > 620 : cell.second > 236); });
    };
    CHECK(on_both(true) == (at.x != 328));
    CHECK(on_both(false) == (at.y != 128));
  }
}

TEST_CASE("what crosses an edge meets what is on either side of it, once, and parts from it") {
  std::string text;
  for (int y = 0; y < 16; ++y) text += "\"" + std::string(40, '.') + "\",\n";
  const std::string flies =
      "top_mover = { speed = 60, acceleration = 100000, deceleration = 100000 }\n"
      "level_edge = { sides = \"wrap\", top = \"wrap\" }\n";
  Yard yard("[gnat]\nbody = { size = [30, 24], category = \"seeds\" }\n" + flies +
                "[wasp]\nbody = { size = [40, 30], category = \"walkers\" }\n" + flies,
            {}, text, {}, open_sides);
  std::set<std::pair<std::uint32_t, std::uint32_t>> together;
  int met = 0, over_an_edge = 0;
  yard.say([&](vole::Cues& cues) {
    cues.when_meet("gnat", "wasp", [&](vole::Stage&, Entity gnat, Entity wasp) {
      ++met;
      CHECK(together.insert({gnat.index, wasp.index}).second);
    });
    cues.when_part("gnat", "wasp", [&](vole::Stage&, Entity gnat, Entity wasp) {
      CHECK(together.erase({gnat.index, wasp.index}) == 1);
    });
  });
  vole::Random chance(9);
  std::vector<Entity> gnats, wasps;
  for (int i = 0; i < 6; ++i) {
    const auto at = [&] { return Vec2{chance.within(0, 640), chance.within(0, 256)}; };
    gnats.push_back(yard.stage->spawn("gnat", at()));
    wasps.push_back(yard.stage->spawn("wasp", at()));
  }
  const auto middle = [&](Entity thing) {
    return yard.pose(thing).at - Vec2{0, yard.stage->get<vole::Body>(thing).size.y / 2};
  };
  for (int tick = 0; tick < cases(1500); ++tick) {
    if (tick % 90 == 0)
      for (const auto& all : {gnats, wasps})
        for (const Entity thing : all)
          yard.stage->get<vole::Intent>(thing).direction = {static_cast<float>(below(chance, 3) - 1),
                                                            static_cast<float>(below(chance, 3) - 1)};
    yard.tick();
    for (const Entity gnat : gnats)
      for (const Entity wasp : wasps) {
        // The shorter way around, along each.
        const Vec2 off = middle(gnat) - middle(wasp);
        const float across = std::min(std::abs(off.x), 640 - std::abs(off.x)) - 35,
                    down = std::min(std::abs(off.y), 256 - std::abs(off.y)) - 27;
        const bool is_together = together.count({gnat.index, wasp.index}) > 0;
        constexpr float in_a_tick = 2.5f;
        if (across < -in_a_tick && down < -in_a_tick) CHECK(is_together);
        if (across > in_a_tick || down > in_a_tick) CHECK_FALSE(is_together);
        if (is_together && (std::abs(off.x) > 320 || std::abs(off.y) > 128)) ++over_an_edge;
      }
  }
  CHECK(met > 20);
  CHECK(over_an_edge > 40);
}

namespace {

// The same by cells alone: one who pushes rows of crates.
struct PushedByCells {
  std::vector<std::string> rows;
  std::vector<IVec2> crates;
  IVec2 at{0, 0};
  int strength = 1;

  bool wall(IVec2 cell) const {
    return rows[static_cast<std::size_t>(cell.y)][static_cast<std::size_t>(cell.x)] == '#';
  }
  std::size_t crate_at(IVec2 cell) const {
    return static_cast<std::size_t>(std::find(crates.begin(), crates.end(), cell) - crates.begin());
  }
  bool is_crate(IVec2 cell) const { return crate_at(cell) < crates.size(); }
  void go(IVec2 way) {
    int count = 0;
    while (is_crate(at + way * (count + 1))) ++count;
    if (count > strength || wall(at + way * (count + 1))) return;
    for (int i = count; i > 0; --i) crates[crate_at(at + way * i)] += way;
    at += way;
  }
};

Vec2 feet_in(IVec2 cell, float height) {
  return Vec2(cell) * 16.0f + Vec2{8, 8 + height / 2};
}

}  // namespace

TEST_CASE("who goes along lanes pushes rows of crates by whole cells, as many as it is strong, or none") {
  vole::Random chance(90);
  const std::vector<IVec2> ways{{1, 0}, {0, 1}, {-1, 0}, {0, -1}};
  int pushes = 0, refused = 0;
  for (int round = 0; round < cases(10); ++round) {
    PushedByCells cells;
    cells.strength = below(chance, 4);
    cells.rows.assign(9, std::string(12, '#'));
    for (int y = 1; y < 8; ++y)
      for (int x = 1; x < 11; ++x)
        if (!chance.chance(0.1f)) cells.rows[static_cast<std::size_t>(y)][static_cast<std::size_t>(x)] = '.';
    const auto free_cell = [&] {
      for (;;)
        if (const IVec2 cell{1 + below(chance, 10), 1 + below(chance, 7)};
            !cells.wall(cell) && !cells.is_crate(cell))
          return cell;
    };
    for (int i = 0; i < 12; ++i) cells.crates.push_back(free_cell());
    cells.at = free_cell();
    const float size = below(chance, 2) == 0 ? 16.0f : 11.0f,
                crate_size = below(chance, 2) == 0 ? 16.0f : 10.0f;
    const float slow = chance.within(30, 300);
    std::string rows;
    for (const std::string& row : cells.rows) rows += "\"" + row + "\",\n";
    Yard yard(
        fmt::format(
            "[box]\nbody = {{ size = [{0}, {0}], category = \"crates\" }}\npushable = {{ speed = {1} }}\n"
            "[bird]\nbody = {{ size = [{2}, {2}], category = \"walkers\" }}\n"
            "grid_mover = {{ speed = 200, early_turn = 0, strength = {3} }}\n",
            crate_size, slow, size, cells.strength),
        {}, rows);
    std::vector<Entity> boxes;
    for (const IVec2 cell : cells.crates)
      boxes.push_back(yard.stage->spawn("box", feet_in(cell, crate_size)));
    const Entity bird = yard.stage->spawn("bird", feet_in(cells.at, size));
    yard.tick();
    for (int move = 0; move < 150; ++move) {
      const IVec2 way = ways[static_cast<std::size_t>(below(chance, 4))];
      const IVec2 before = cells.at;
      const bool meets = cells.is_crate(before + way);
      cells.go(way);
      if (meets) ++(cells.at == before ? refused : pushes);
      for (int i = 0; i < 60; ++i) {
        yard.stage->get<vole::Intent>(bird).direction = i == 0 ? Vec2(way) : Vec2{0, 0};
        yard.tick();
        for (const Entity box : boxes) REQUIRE_FALSE(yard.stage->overlap(bird, box));
        // No faster than what it pushes.
        if (meets && cells.at != before)
          REQUIRE(vole::length_of(yard.pose(bird).at - yard.pose(bird).before) <= slow / 60 + 0.01f);
        if (yard.stage->get<vole::GridMover>(bird).heading == IVec2{0, 0}) break;
      }
      CAPTURE(round, move, rows, way.x, way.y, before.x, before.y, cells.strength);
      REQUIRE(yard.pose(bird).at == feet_in(cells.at, size));
      for (std::size_t i = 0; i < boxes.size(); ++i)
        REQUIRE(yard.pose(boxes[i]).at == feet_in(cells.crates[i], crate_size));
    }
  }
  CHECK(pushes > 50);
  CHECK(refused > 20);
}

TEST_CASE("what is pushed by cells waits while something is before it, and comes back with who goes back") {
  Yard yard(
      "[box]\nbody = { size = [14, 14], category = \"crates\" }\npushable = { speed = 60 }\n"
      "[bird]\nbody = { size = [16, 16], category = \"walkers\" }\ngrid_mover = { speed = 60, early_turn = 0 "
      "}\n");
  const Entity bird = yard.stage->spawn("bird", {24, 32}), box = yard.stage->spawn("box", {40, 31});
  const auto push = [&](float way, int ticks) {
    for (int i = 0; i < ticks; ++i) {
      yard.stage->get<vole::Intent>(bird).direction = {way, 0};
      yard.tick();
    }
  };
  push(1, 8);
  CHECK(yard.pose(box).at.x == 48);
  const Entity door = yard.stage->spawn("door", {60, 50});
  push(1, 30);
  const float held = yard.pose(box).at.x;
  CHECK(held <= 50);
  CHECK(yard.pose(bird).at.x - 24 == held - 40);
  push(1, 10);
  CHECK(yard.pose(box).at.x == held);
  SECTION("it goes on when that is gone") {
    yard.stage->remove(door);
    push(0, 60);
    CHECK(yard.pose(box).at.x == 56);
    CHECK(yard.pose(bird).at.x == 40);
  }
  SECTION("or back") {
    push(-1, 3);
    push(0, 60);
    CHECK(yard.pose(box).at.x == 40);
    CHECK(yard.pose(bird).at.x == 24);
  }
  SECTION("and what is no longer there is not pushed") {
    yard.stage->remove(box);
    yard.stage->remove(door);
    push(0, 60);
    CHECK(yard.pose(bird).at.x == 40);
  }
}

TEST_CASE("probes turn by quarters with who is seen from above, around the middle of its body") {
  for (const char* const mover :
       {"grid_mover = { speed = 60, early_turn = 0 }", "top_mover = { speed = 60 }"}) {
    Yard yard(
        fmt::format("[bird]\nbody = {{ size = [16, 16], category = \"walkers\" }}\n{}\n"
                    "probes.ahead = {{ area = [9, -12, 14, 8], categories = [\"crates\"] }}\n"
                    "probes.eye = {{ from = [0, -8], to = [40, -8], categories = [\"crates\"] }}\n"
                    "probes.beside = {{ area = [-4, 1, 8, 6], categories = [\"crates\"] }}\n"
                    "[box]\nbody = {{ size = [10, 10], category = \"crates\" }}\n",
                    mover));
    const Vec2 middle{104, 104};
    for (const Vec2 way : {Vec2{1, 0}, {0, 1}, {-1, 0}, {0, -1}}) {
      const Entity bird = yard.stage->spawn("bird", middle + Vec2{0, 8});
      // Ahead, to its right hand, behind, and to its left hand.
      const Vec2 hand{-way.y, way.x};
      for (const auto& [to, ahead, beside] :
           std::vector<std::tuple<Vec2, bool, bool>>{{way, true, false},
                                                     {hand, false, way.x >= 0},
                                                     {-way, false, false},
                                                     {-hand, false, way.x < 0}}) {
        const Entity box = yard.stage->spawn("box", middle + to * 15.0f + Vec2{0, 5});
        yard.stage->get<vole::Intent>(bird).direction = way;
        yard.stage->get<vole::Motion>(bird) = {};
        yard.tick();
        yard.pose(bird).at = middle + Vec2{0, 8};
        CAPTURE(mover, way.x, way.y, to.x, to.y);
        CHECK(yard.stage->probe(bird, "ahead") == ahead);
        CHECK(yard.stage->probe(bird, "eye") == ahead);
        CHECK(yard.stage->found(bird, "ahead") == (ahead ? box : Entity{}));
        CHECK(yard.stage->probe(bird, "beside") == beside);
        yard.stage->remove(box);
        yard.tick();
      }
      yard.stage->remove(bird);
      yard.tick();
    }
  }
}
