// Things that meet tiles of the level: each time and once, whatever their speed, and only those tiles that are meant.
#include <algorithm>
#include <cmath>
#include <set>
#include <vector>

#include "vole/world/fly_mover.hpp"
#include "yard.hpp"

namespace {

using vole::Entity;
using vole::IVec2;
using vole::Rect;
using vole::Stage;
using vole::Vec2;

constexpr const char* more_tiles =
    "mud = { colour = \"#4a3026\", solid = true, tags = [\"soft\"] }\n"
    "reed = { colour = \"#4a3026\" }\n"
    "block = { colour = \"#7a4a33\", solid = true }\n"
    "[materials.clay]\ncases.all = \"block\"\ncases.\"\" = \"block\"\n";
constexpr const char* more_letters = "m = \"mud\"\nc = \"clay\"\nr = \"reed\"\n";

std::string quoted(const std::vector<std::string>& rows) {
  std::string text;
  for (const std::string& row : rows) text += "\"" + row + "\",\n";
  return text;
}

std::vector<std::string> room_by_chance(vole::Random& chance, float share) {
  std::vector<std::string> rows(16, std::string(40, '.'));
  for (int y = 0; y < 16; ++y)
    for (int x = 0; x < 40; ++x) {
      const bool rim = x == 0 || y == 0 || x == 39 || y == 15;
      if (rim || chance.chance(share))
        rows[static_cast<std::size_t>(y)][static_cast<std::size_t>(x)] = "#mcr"[chance.below(rim ? 3 : 4)];
    }
  return rows;
}

// Whether a box reaches into a cell with one of these letters, or touches its side.
bool reaches(const std::vector<std::string>& rows, const Rect& box, const std::string& letters) {
  for (int y = 0; y < 16; ++y)
    for (int x = 0; x < 40; ++x) {
      const char letter = rows[static_cast<std::size_t>(y)][static_cast<std::size_t>(x)];
      if (letters.find(letter) == std::string::npos) continue;
      if (Rect{Vec2(IVec2{x, y} * 16), {16, 16}}.overlaps(box)) return true;
    }
  return false;
}
bool touches(const std::vector<std::string>& rows, const Rect& box, const std::string& letters) {
  constexpr float near = 3.5f / 256;
  return reaches(rows, {box.at - Vec2{near, 0}, box.size + Vec2{2 * near, 0}}, letters) ||
         reaches(rows, {box.at - Vec2{0, near}, box.size + Vec2{0, 2 * near}}, letters);
}
bool free_around(const std::vector<std::string>& rows, IVec2 cell) {
  return !reaches(rows, {Vec2(cell * 16), {16, 16}}, "#mc");
}
IVec2 free_cell(const std::vector<std::string>& rows, vole::Random& chance) {
  for (;;)
    if (const IVec2 cell{1 + static_cast<int>(chance.below(38)), 1 + static_cast<int>(chance.below(14))};
        free_around(rows, cell))
      return cell;
}

}  // namespace

TEST_CASE("a thing meets the tiles that it touches, once until it touches none of those that are meant") {
  vole::Random chance(3);
  int met = 0, passed = 0;
  for (int round = 0; round < cases(6); ++round) {
    const std::vector<std::string> rows = room_by_chance(chance, 0.25f);
    Yard yard(
        "[bird]\nbody = { size = [10, 10], category = \"walkers\" }\ntop_mover = { speed = 130, acceleration "
        "= 100000, "
        "deceleration = 100000 }\n",
        more_tiles, quoted(rows), {}, more_letters);
    struct Counts {
      int begun = 0, lasted = 0;
      vole::TileMeeting last;
    };
    std::vector<std::pair<vole::TileSelector, std::string>> asked{{vole::any_tile(), "#mc"},
                                                                  {vole::tile_tagged("soft"), "m"},
                                                                  {vole::tile_of("clay"), "c"},
                                                                  {vole::tile_of("soil"), "#"}};
    std::vector<Counts> counts(asked.size());
    yard.say([&](vole::Cues& cues) {
      for (std::size_t i = 0; i < asked.size(); ++i) {
        cues.when_meet("bird", asked[i].first, [&counts, i](Stage&, Entity) { ++counts[i].begun; });
        cues.while_touching("bird", asked[i].first,
                            [&counts, i](Stage&, Entity, const vole::TileMeeting& meeting) {
                              ++counts[i].lasted;
                              counts[i].last = meeting;
                            });
      }
    });
    const Entity bird = yard.stage->spawn("bird", Vec2(free_cell(rows, chance)) * 16.0f + Vec2{8, 13});
    std::vector<bool> touched(asked.size(), false);
    for (int i = 0; i < 600; ++i) {
      if (chance.below(15) == 0)
        yard.stage->get<vole::Intent>(bird).direction =
            vole::unit_of(static_cast<vole::Direction>(chance.below(8)));
      const Rect was{yard.pose(bird).at - Vec2{5, 10}, {10, 10}};
      counts.assign(asked.size(), {});
      yard.tick();
      const Rect box{yard.pose(bird).at - Vec2{5, 10}, {10, 10}};
      for (std::size_t k = 0; k < asked.size(); ++k) {
        const bool touches_now = touches(rows, box, asked[k].second);
        CAPTURE(round, i, asked[k].second, was.at.x, was.at.y, box.at.x, box.at.y);
        // It may have slid along a corner on its way, at most as near as it came.
        if (!touches_now && counts[k].lasted > 0) {
          REQUIRE(touches(rows, was.joined_with(box), asked[k].second));
          ++passed;
        } else {
          REQUIRE((counts[k].lasted > 0) == touches_now);
        }
        REQUIRE((counts[k].begun > 0) == (counts[k].lasted > 0 && !touched[k]));
        touched[k] = counts[k].lasted > 0;
        if (!touched[k]) continue;
        ++met;
        const vole::TileMeeting& last = counts[k].last;
        const char letter =
            rows.at(static_cast<std::size_t>(last.cell.y)).at(static_cast<std::size_t>(last.cell.x));
        REQUIRE(asked[k].second.find(letter) != std::string::npos);
        REQUIRE(vole::length_of(last.normal) == Approx(1).margin(1e-3));
      }
    }
  }
  CHECK(met > 500);
  CHECK(passed < met / 10);
}

TEST_CASE("what goes through tiles meets those that are on its way, however fast it is") {
  vole::Random chance(44);
  int met = 0;
  for (int round = 0; round < cases(120); ++round) {
    const std::vector<std::string> rows = room_by_chance(chance, 0.02f);
    Yard yard("[dart]\nbody = { size = [4, 4], category = \"walkers\", use = \"sensor\" }\n", more_tiles,
              quoted(rows), {}, more_letters);
    std::vector<vole::TileMeeting> meetings;
    yard.say([&](vole::Cues& cues) {
      cues.when_meet("dart", vole::any_tile(),
                     [&](Stage&, Entity, const vole::TileMeeting& meeting) { meetings.push_back(meeting); });
    });
    const Vec2 from = Vec2(free_cell(rows, chance)) * 16.0f + Vec2{8, 10};
    const Entity dart = yard.stage->spawn("dart", from);
    yard.tick();
    REQUIRE(meetings.empty());
    const Vec2 by{std::round(chance.within(-200, 200)), std::round(chance.within(-200, 200))};
    CueScene::work = [&](Stage& stage) { stage.get<vole::Pose>(dart).at = from + by; };
    yard.tick();
    CueScene::work = nullptr;
    constexpr int steps = 4000;
    int first = -1;
    for (int i = 0; i <= steps && first < 0; ++i) {
      const Vec2 at = from + by * (static_cast<float>(i) / steps);
      if (reaches(rows, {at - Vec2{2, 4}, {4, 4}}, "#mc")) first = i;
    }
    CAPTURE(round, from.x, from.y, by.x, by.y, first);
    const Rect all{{0, 0}, {640, 256}};
    if (first < 0) {
      // Beside what it only touches.
      if (all.overlaps({from + by, {1, 1}})) REQUIRE(meetings.size() <= 1);
      continue;
    }
    REQUIRE(meetings.size() == 1);
    ++met;
    // It is the first: there the box touches that cell.
    const Vec2 at = from + by * (static_cast<float>(first) / steps);
    const Rect cell{Vec2(meetings[0].cell * 16) - Vec2{0.3f, 0.3f}, {16.6f, 16.6f}};
    REQUIRE(cell.overlaps({at - Vec2{2, 4}, {4, 4}}));
    REQUIRE(meetings[0].speed > 0);
  }
  CHECK(met > 20);
}

TEST_CASE(
    "a dart ends at a wall in one line; a ball that bounces meets each time; a board is met from above") {
  std::vector<std::string> rows(16, std::string(40, '.'));
  rows[15] = std::string(40, '#');
  rows[10] = "#....====..............................#";
  Yard yard(
      "[dart]\nbody = { size = [4, 4], category = \"walkers\" }\nfly_mover = { thrust = 0, drag = 0, speed = "
      "2000 }\n"
      "[ball]\nbody = { size = [8, 8], category = \"walkers\" }\n"
      "fly_mover = { thrust = 0, drag = 0, speed = 2000, bounce = 1 }\n",
      more_tiles, quoted(rows), {}, more_letters);
  int bounces = 0, landed = 0;
  yard.say([&](vole::Cues& cues) {
    cues.when_meet("dart", vole::any_tile(), [](Stage& stage, Entity dart) { stage.remove(dart); });
    cues.when_meet("ball", vole::any_tile(), [&](Stage&, Entity) { ++bounces; });
    cues.when_meet("walker", vole::tile_of("plank"), [&](Stage&, Entity) { ++landed; });
  });
  const Entity dart = yard.stage->spawn("dart", {100, 172});
  yard.stage->get<vole::Motion>(dart).velocity = {900, 0};
  yard.tick(20);
  CHECK_FALSE(yard.stage->removed(dart));
  yard.tick(30);
  CHECK(yard.stage->removed(dart));

  const Entity ball = yard.stage->spawn("ball", {300, 172});
  yard.stage->get<vole::Motion>(ball).velocity = {713, 0};
  int turns = 0;
  for (int i = 0; i < 400; ++i) {
    const float before = yard.stage->get<vole::Motion>(ball).velocity.x;
    yard.tick();
    if (before * yard.stage->get<vole::Motion>(ball).velocity.x < 0) ++turns;
    // It may come to touch the wall at the end of a tick, and be thrown back in the next.
    REQUIRE((bounces == turns || bounces == turns + 1));
  }
  CHECK(std::abs(bounces - turns) <= 1);
  CHECK(turns > 5);
  yard.stage->remove(ball);

  // Up through the board, and down onto it.
  const Entity walker = yard.stage->spawn("walker", {100, 200});
  yard.stage->get<vole::Motion>(walker).velocity.y = -400;
  for (int i = 0; i < 120 && yard.pose(walker).at.y > 150; ++i) {
    yard.tick();
    REQUIRE(landed == 0);
  }
  REQUIRE(yard.pose(walker).at.y <= 150);
  yard.tick(120);
  CHECK(yard.pose(walker).at.y == 160);
  CHECK(landed == 1);
}

TEST_CASE("tiles that a cue is about are somewhere in the game, and so are bodies of a category") {
  Yard yard("", more_tiles, {}, {}, more_letters);
  const auto wrong = [&](auto&& say) { return error_of([&] { yard.say(say); }, yard.folder); };
  const auto nothing = [](Stage&, Entity) {};
  CHECK(wrong([&](vole::Cues& cues) { cues.when_meet("walker", vole::tile_of("clya"), nothing); }) ==
        "error: no level has a tile or material \"clya\", which a cue is about; did you mean \"clay\"?");
  CHECK(wrong([&](vole::Cues& cues) { cues.while_touching("walker", vole::tile_tagged("sotf"), nothing); }) ==
        "error: no level has a tile with the tag \"sotf\", which a cue is about; did you mean \"soft\"?");
  CHECK(wrong([&](vole::Cues& cues) { cues.when_meet("wlaker", vole::any_tile(), nothing); }) ==
        "error: no kind \"wlaker\"; did you mean \"walker\"?");
  CHECK(wrong([&](vole::Cues& cues) {
          cues.when_meet(vole::of_category("ground"), vole::any_tile(), nothing);
        }) ==
        "error: no kind has a body of the category \"ground\", which a cue is about; tiles are met by "
        "vole::any_tile()");
  CHECK(wrong([&](vole::Cues& cues) {
          cues.when_meet("walker", vole::of_category("plain"), [](Stage&, Entity, Entity) {});
        }).find("no kind has a body of the category \"plain\"") != std::string::npos);
  CHECK(wrong([&](vole::Cues& cues) {
          cues.when_meet(vole::of_category("crates"), vole::tile_tagged("soft"), nothing);
        }).empty());
}

TEST_CASE("a restored state has not met its tiles anew") {
  int met = 0;
  const auto say = [&met](vole::Cues& cues) {
    cues.when_meet("walker", vole::any_tile(), [&met](Stage&, Entity) { ++met; });
  };
  Yard one(""), two("");
  one.say(say);
  const Entity walker = one.stage->spawn("walker", {100, floor_y - 40});
  one.tick(60);
  REQUIRE(met == 1);
  REQUIRE(one.pose(walker).at.y == floor_y);
  const vole::StateBytes middle = one.state();
  vole::StateReader in(middle);
  two.running->read(in);
  two.running->bind();
  two.say(say);
  one.tick(30);
  two.tick(30);
  CHECK(met == 1);
  CHECK(one.state() == two.state());
}

TEST_CASE("a cue may load another level while things of this one meet tiles") {
  Yard yard("");
  int met = 0, loaded = 0;
  yard.say([&](vole::Cues& cues) {
    cues.when_meet("walker", vole::any_tile(), [&](Stage& stage, Entity) {
      if (++met == 2) stage.load_level("yard");
    });
    cues.when_meet("walker", "crate", [&](Stage& stage, Entity, Entity) {
      ++loaded;
      stage.load_level("yard");
    });
  });
  yard.stage->spawn("walker", {100, floor_y});
  yard.stage->spawn("crate", {108, floor_y});
  yard.tick();
  CHECK(loaded == 1);
  CHECK(met == 1);
  for (const float x : {50.0f, 70.0f, 90.0f}) yard.stage->spawn("walker", {x, floor_y});
  yard.tick(3);
  // Each of them once: things stay when a level is loaded, and what was found is told.
  CHECK(met == 4);
  CHECK(yard.stage->count("walker") == 4);
}
