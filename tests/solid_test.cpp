// Things that hold, carry, push and meet each other, through kinds, levels, stage and cues.
#include <fmt/core.h>

#include <cmath>

#include "support.hpp"
#include "vole/input/intent.hpp"
#include "vole/physics/collision_world.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/world/along_path.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/side_mover.hpp"
#include "vole/world/top_mover.hpp"
#include "vole/world/world.hpp"
#include "yard.hpp"

namespace {

using vole::Body;
using vole::BodyUse;
using vole::Entity;
using vole::Intent;
using vole::Meeting;
using vole::Motion;
using vole::Pose;
using vole::Rect;
using vole::Stage;
using vole::Touching;
using vole::Vec2;

}  // namespace

TEST_CASE(
    "a walker is held by a shut door, faces it, knows it, and goes through when it is open or only noticed") {
  Yard yard("");
  const Entity walker = yard.stage->spawn("walker", {100, floor_y}),
               door = yard.stage->spawn("door", {140, floor_y});
  yard.walk(walker, 1);
  yard.tick(60);
  CHECK(yard.pose(walker).at == Vec2{132, floor_y});
  CHECK(yard.touching(walker).wall_right);
  CHECK(yard.touching(walker).wall_thing == door);
  CHECK_FALSE(yard.pose(walker).mirrored);
  for (const BodyUse use : {BodyUse::sensor, BodyUse::off}) {
    yard.pose(walker).at = {100, floor_y};
    yard.stage->get<Body>(door).use = use;
    yard.tick(60);
    CHECK(yard.pose(walker).at.x > 180);
  }
  // Shut again while it stands in it, it may leave.
  yard.pose(walker).at = {140, floor_y};
  yard.stage->get<Body>(door).use = BodyUse::solid;
  yard.tick(30);
  CHECK(yard.pose(walker).at.x > 170);
  yard.stage->remove(door);
  yard.tick();
  CHECK_FALSE(yard.stage->bodies().cast_ray({100, 230}, {100, 0}, {.tiles = false, .sensors = false}));
}

TEST_CASE("walking up and down slopes keeps the speed along the ground, and never leaves it") {
  Yard yard("", "", hill_rows());
  const Entity walker = yard.stage->spawn("walker", {100, floor_y});
  yard.tick(2);
  yard.walk(walker, 1);
  double length = 0;
  for (int i = 0; i < 100; ++i) {
    const Vec2 before = yard.pose(walker).at;
    yard.tick();
    const Vec2 gone = yard.pose(walker).at - before;
    length += std::hypot(static_cast<double>(gone.x), static_cast<double>(gone.y));
    REQUIRE(yard.touching(walker).ground);
  }
  // A tick over a joint is a little shorter from end to end.
  CHECK(length == Approx(150).margin(0.3));
  CHECK(yard.pose(walker).at.y == floor_y - 64);
  yard.walk(walker, -1);
  for (int i = 0; i < 100; ++i) {
    yard.tick();
    REQUIRE(yard.touching(walker).ground);
  }
  CHECK(yard.pose(walker).at.x == Approx(100).margin(0.1));
  CHECK(yard.pose(walker).at.y == floor_y);
}

TEST_CASE("a plank is jumped up through, stood on, and dropped through on request") {
  std::string rows;
  for (int y = 0; y < 16; ++y) {
    std::string row(40, y == 15 ? '#' : '.');
    if (y == 13) row.replace(8, 6, "======");
    rows += fmt::format("\"{}\",\n", row);
  }
  Yard yard("", "", rows);
  const float plank = 13 * 16;
  const Entity walker = yard.stage->spawn("walker", {170, floor_y});
  yard.tick(2);
  Intent& intent = yard.stage->get<Intent>(walker);
  float highest = floor_y;
  for (int i = 0; i < 90; ++i) {
    intent.jump_pressed = i == 0;
    intent.jump_held = true;
    yard.tick();
    highest = std::min(highest, yard.pose(walker).at.y);
  }
  CHECK(highest < plank);
  CHECK(yard.pose(walker).at.y == plank);
  intent.drop_pressed = true;
  yard.tick();
  intent.drop_pressed = false;
  CHECK_FALSE(yard.touching(walker).ground);
  yard.tick(60);
  CHECK(yard.pose(walker).at.y == floor_y);
}

TEST_CASE(
    "riders go where what carries them goes, stacks too, and keep standing while it turns, falls and stops") {
  vole::Random chance(51);
  for (int round = 0; round < cases(30); ++round) {
    Yard yard("");
    const Entity lift = yard.stage->spawn("lift", {200, 120});
    vole::AlongPath path;
    for (int i = 0; i < 4; ++i) path.points.push_back({chance.within(-80, 80), chance.within(-40, 60)});
    path.speed = chance.within(5, 400);
    path.pause = chance.chance(0.5f) ? 0.1f : 0;
    path.end = static_cast<vole::PathEnd>(chance.below(3));
    yard.stage->entities().add(lift, path);
    const Entity crate = yard.stage->spawn("crate", {196, 112}),
                 upper = yard.stage->spawn("crate", {198, 100});
    const Entity walker = yard.stage->spawn("walker", {200, 88});
    yard.tick();
    const Vec2 crate_off = yard.pose(crate).at - yard.pose(lift).at,
               upper_off = yard.pose(upper).at - yard.pose(crate).at;
    const Vec2 walker_off = yard.pose(walker).at - yard.pose(upper).at;
    for (int tick = 0; tick < 400; ++tick) {
      yard.tick();
      CAPTURE(round, tick, path.speed, yard.pose(lift).at.x, yard.pose(lift).at.y);
      const auto near = [](Vec2 a, Vec2 b) {
        return std::abs(a.x - b.x) < 0.01f && std::abs(a.y - b.y) < 0.01f;
      };
      REQUIRE(near(yard.pose(crate).at - vole::on_lattice(yard.pose(lift).at), crate_off));
      REQUIRE(near(yard.pose(upper).at - yard.pose(crate).at, upper_off));
      REQUIRE(near(yard.pose(walker).at - yard.pose(upper).at, walker_off));
      REQUIRE(yard.touching(walker).ground);
      REQUIRE(yard.touching(walker).ground_thing == upper);
    }
  }
}

TEST_CASE(
    "what is in the way is pushed, what has no room is told once and holds the platform, and is never "
    "buried") {
  Yard yard("");
  const Entity lift = yard.stage->spawn("lift", {100, floor_y});
  vole::AlongPath path;
  path.points = {{480, 0}};
  path.end = vole::PathEnd::stop;
  path.speed = 120;
  yard.stage->entities().add(lift, path);
  const Entity walker = yard.stage->spawn("walker", {160, floor_y});
  const Entity wall = yard.stage->spawn("door", {400, floor_y});
  int squeezed = 0;
  yard.say([&](vole::Cues& cues) {
    cues.when_squeezed("walker", [&](Stage&, Entity who, Entity by) {
      CHECK(who == walker);
      CHECK(by == lift);
      ++squeezed;
    });
  });
  for (int tick = 0; tick < 300; ++tick) {
    yard.tick();
    REQUIRE_FALSE(yard.stage->box(walker).overlaps(yard.stage->box(lift)));
    REQUIRE_FALSE(yard.stage->box(walker).overlaps(yard.stage->box(wall)));
  }
  CHECK(squeezed == 1);
  CHECK(yard.stage->box(walker).right() == yard.stage->box(wall).left());
  CHECK(yard.stage->box(walker).left() - yard.stage->box(lift).right() < 2);
  // With room again it goes on.
  yard.stage->remove(wall);
  yard.tick(60);
  CHECK(yard.pose(walker).at.x > 450);
  CHECK(squeezed == 1);
}

TEST_CASE("what a scene moves by hand carries and pushes as well") {
  Yard yard("");
  const Entity lift = yard.stage->spawn("lift", {100, 200}), walker = yard.stage->spawn("walker", {100, 192});
  const Entity other = yard.stage->spawn("walker", {140, floor_y});
  CueScene::work = [lift](Stage& stage) { stage.get<Pose>(lift).at += Vec2{0.3f, 0.25f}; };
  for (int tick = 0; tick < 60; ++tick) {
    yard.tick();
    REQUIRE(yard.pose(walker).at.y == vole::on_lattice(yard.pose(lift).at).y - 8);
    REQUIRE_FALSE(yard.stage->box(other).overlaps(yard.stage->box(lift)));
  }
  CHECK(yard.pose(walker).at.x == Approx(118).margin(0.2));
}

TEST_CASE("what meets is told once when it begins, while it lasts and when it ends, with how it was") {
  Yard yard("");
  const Entity walker = yard.stage->spawn("walker", {100, floor_y}),
               bulb = yard.stage->spawn("bulb", {150, floor_y});
  std::string told;
  Meeting last;
  yard.say([&](vole::Cues& cues) {
    cues.when_meet("walker", vole::tagged("seed"), [&](Stage&, Entity a, Entity b, const Meeting& meeting) {
      CHECK(a == walker);
      CHECK(b == bulb);
      told += "m";
      last = meeting;
    });
    cues.while_touching(vole::of_category("walkers"), "bulb", [&](Stage&, Entity, Entity) { told += "."; });
    cues.when_part("walker", "bulb", [&](Stage& stage, Entity a, Entity b) {
      told += "p";
      CHECK(stage.kind_of(a) == "walker");
      CHECK(stage.kind_of(b) == "bulb");
    });
    cues.when_meet("walker", vole::zone("corner"), [&](Stage&, Entity, Entity) { told += "z"; });
  });
  yard.walk(walker, 1);
  while (told.empty()) yard.tick();
  CHECK(last.normal.x == Approx(-1).margin(0.2));
  CHECK(last.speed == Approx(90).margin(15));
  CHECK(last.point.x == Approx(144).margin(2));
  yard.tick(200);
  CHECK(told.front() == 'm');
  CHECK(std::count(told.begin(), told.end(), 'm') == 1);
  CHECK(std::count(told.begin(), told.end(), '.') == 14);
  CHECK(std::count(told.begin(), told.end(), 'p') == 1);
  yard.tick(120);
  CHECK(std::count(told.begin(), told.end(), 'z') == 1);
}

TEST_CASE("a meeting ends once when one of the two is removed or switched off, whenever that happens") {
  for (const bool off : {false, true})
    for (const bool within : {false, true}) {
      Yard yard("");
      const Entity walker = yard.stage->spawn("walker", {150, floor_y}),
                   bulb = yard.stage->spawn("bulb", {150, floor_y});
      std::string told;
      const auto end = [&](Stage& stage) {
        if (off)
          stage.get<Body>(bulb).use = BodyUse::off;
        else
          stage.remove(bulb), stage.remove(bulb);
      };
      yard.say([&](vole::Cues& cues) {
        cues.when_meet("walker", "bulb", [&](Stage& stage, Entity, Entity) {
          told += "m";
          if (within) end(stage);
        });
        cues.when_part("bulb", "walker", [&](Stage& stage, Entity a, Entity b) {
          told += "p";
          CHECK(a == bulb);
          CHECK(b == walker);
          CHECK(stage.entities().alive(a));
        });
      });
      yard.tick(3);
      if (!within) end(*yard.stage);
      yard.tick(3);
      CAPTURE(off, within);
      CHECK(told == "mp");
      CHECK(yard.stage->world().met.empty());
    }
}

TEST_CASE("solid things meet by touching, and who does not notice whom is told nothing") {
  Yard yard("[stone]\nbody = { size = [8, 8] }\n");
  const Entity walker = yard.stage->spawn("walker", {100, floor_y});
  yard.stage->spawn("crate", {130, floor_y});
  yard.stage->spawn("bulb", {300, floor_y});
  yard.stage->spawn("stone", {300, floor_y});
  int met = 0, noticed = 0;
  float speed = 0;
  yard.say([&](vole::Cues& cues) {
    cues.when_meet("walker", "crate", [&](Stage&, Entity, Entity, const Meeting& meeting) {
      ++met;
      speed = meeting.speed;
      CHECK(meeting.normal == Vec2{-1, 0});
    });
    cues.when_meet("stone", "bulb", [&](Stage&, Entity, Entity) { ++noticed; });
  });
  yard.walk(walker, 1);
  yard.tick(60);
  CHECK(met == 1);
  CHECK(speed == Approx(90));
  CHECK(noticed == 0);
}

TEST_CASE("probes answer for the categories that they name, turned with the thing") {
  Yard yard(R"([scout]
body = { size = [10, 10], category = "walkers" }
side_mover = { speed = 40 }
probes.floor_ahead = { area = [6, 1, 2, 4], categories = ["ground"] }
probes.ahead = { area = [5, -8, 20, 6], categories = ["walkers", "seeds"] }
probes.any = { area = [-20, -8, 40, 4] }
)");
  Stage& stage = *yard.stage;
  const Entity scout = stage.spawn("scout", {100, floor_y}), walker = stage.spawn("walker", {118, floor_y});
  yard.tick();
  CHECK(stage.probe(scout, "floor_ahead"));
  CHECK(stage.probe(scout, "ahead"));
  yard.pose(scout).mirrored = true;
  CHECK_FALSE(stage.probe(scout, "ahead"));
  yard.pose(walker).at.x = 80;
  CHECK(stage.probe(scout, "ahead"));
  CHECK(stage.probe(scout, "any"));
  stage.remove(walker);
  CHECK_FALSE(stage.probe(scout, "any"));
  yard.pose(scout).at.y = 200;
  CHECK_FALSE(stage.probe(scout, "floor_ahead"));
  CHECK(error_of([&] { stage.probe(scout, "flor_ahead"); }, yard.folder) ==
        "error: no probe \"flor_ahead\" of a \"scout\"; did you mean \"floor_ahead\"?");
}

TEST_CASE("what is wrong with categories, shapes, probes and tiles is reported with its place") {
  const auto wrong = [](const std::string& kinds, const std::string& tiles = {}) {
    std::string message;
    try {
      Yard yard(kinds, tiles);
      message = error_of([&] { yard.stage->spawn("wrong", {0, 0}); }, yard.folder);
    } catch (const vole::Error& error) {
      message = error.what();
    }
    return message;
  };
  CHECK_THAT(wrong("[wrong]\nbody = { category = \"walker\" }\n"),
             Catch::Contains("kinds.toml:18:21: error: no category \"walker\"; did you mean \"walkers\"?"));
  CHECK_THAT(wrong("[wrong]\nprobes.a = { categories = [\"door\"] }\n"),
             Catch::Contains("no category \"door\"; did you mean \"doors\"?"));
  CHECK_THAT(wrong("[wrong]\nshapes = [{ at = [1, 1] }]\n"),
             Catch::Contains("kinds.toml:18:11: error: this is no shape"));
  CHECK_THAT(wrong("[wrong]\nshapes = [{ corners = [[0, 0], [9, 9], [0, 9], [9, 0]] }]\n"),
             Catch::Contains("the polygon is not convex"));
  CHECK_THAT(wrong("", "own = { colour = \"#ffffff\", corners = [[0, 0], [17, 0], [0, 9]] }\n"),
             Catch::Contains("the shape of a tile lies within its 16 x 16 pixels"));
  CHECK_THAT(wrong("", "own = { colour = \"#ffffff\", one_way = \"up\" }\n"),
             Catch::Contains("is one-way, but not solid"));
  CHECK_THAT(wrong("", "own = { colour = \"#ffffff\", solid = true, category = \"watr\" }\n"),
             Catch::Contains("no category \"watr\""));

  const auto categories = [](const std::string& text) {
    TempFolder folder;
    folder.write("game.toml", "title = \"T\"\nid = \"t\"\nfirst_scene = \"s\"\n[categories]\n" + text);
    return error_of([&] { vole::read_project(folder.path("game.toml")); }, folder);
  };
  CHECK(categories("a = { blocks = [\"b\"] }\nb = {}\n").empty());
  CHECK(categories("a = { blocks = [\"grund\"] }\n") ==
        "game.toml:5:17: error: no category \"grund\"; did you mean \"ground\"?");
  CHECK_THAT(categories("a = { notices = [\"b\"] }\nb = { notices = [] }\n"),
             Catch::Contains("\"a\" notices \"b\", which does not notice it"));
  std::string many;
  for (int i = 0; i < 31; ++i) many += fmt::format("c{} = {{}}\n", i);
  CHECK_THAT(categories(many), Catch::Contains("32 categories") || Catch::Contains("at most 32"));
}

TEST_CASE("a restored state goes on as the run went, with platforms, riders, meetings and what is squeezed") {
  const auto begin = [](Yard& yard) {
    const Entity lift = yard.stage->spawn("lift", {200, 120});
    vole::AlongPath path;
    path.points = {{0, 0}, {90, 40}, {-60, 80}};
    path.speed = 77;
    yard.stage->entities().add(lift, path);
    yard.stage->spawn("crate", {200, 112});
    for (int i = 0; i < 6; ++i) {
      const Entity walker = yard.stage->spawn("walker", {40.0f + 80.0f * static_cast<float>(i), floor_y});
      yard.walk(walker, i % 2 == 0 ? 1.0f : -1.0f);
    }
    yard.stage->spawn("bulb", {180, floor_y});
    yard.say([](vole::Cues& cues) { cues.when_meet("walker", "bulb", [](Stage&, Entity, Entity) {}); });
  };
  Yard one(""), two("");
  begin(one);
  one.tick(50);
  const vole::StateBytes middle = one.state();
  one.tick(150);
  vole::StateReader in(middle);
  two.running->read(in);
  two.running->bind();
  two.say([](vole::Cues& cues) { cues.when_meet("walker", "bulb", [](Stage&, Entity, Entity) {}); });
  two.tick(150);
  CHECK(one.state() == two.state());
}

TEST_CASE("a steady tick with bodies, platforms, probes, questions and meetings allocates nothing") {
  if (!allocations_are_counted()) return;
  Yard yard(
      "[scout]\nbody = { size = [10, 10], category = \"walkers\" }\nside_mover = { speed = 40 }\n"
      "probes.floor_ahead = { area = [6, 1, 2, 4], categories = [\"ground\"] }\n"
      "probes.far = { from = [6, -5], to = [90, -5] }\n"
      "shapes = [{ area = [-5, -10, 10, 10] }, { name = \"claw\", at = [9, -5], radius = 4, use = "
      "\"off\", "
      "mirrors = true }]\n"
      "switches = [{ shape = \"claw\", when = [\"far\", \"grounded\"], use = \"sensor\" }]\n");
  const Entity lift = yard.stage->spawn("lift", {200, 120});
  vole::AlongPath path;
  path.points = {{0, 0}, {90, 40}, {-60, 80}};
  yard.stage->entities().add(lift, path);
  yard.stage->spawn("crate", {200, 112});
  const Entity scout = yard.stage->spawn("scout", {300, floor_y});
  for (int i = 0; i < 20; ++i) {
    yard.walk(yard.stage->spawn("walker", {20.0f + 25.0f * static_cast<float>(i), floor_y}),
              i % 2 == 0 ? 1.0f : -1.0f);
    yard.stage->spawn("bulb", {20.0f + 25.0f * static_cast<float>(i), floor_y});
  }
  int answers = 0;
  std::vector<vole::BodyOrCell> found;
  CueScene::work = [&](Stage& stage) {
    found.clear();
    stage.bodies().find(Rect{{0, 0}, {300, 300}}, {}, found);
    yard.walk(scout, stage.ticks() % 40 < 20 ? 1.0f : -1.0f);
    answers += stage.probe(scout, "floor_ahead") +
               static_cast<int>(stage.bodies().cast_ray({0, 230}, {600, 0}).has_value()) +
               static_cast<int>(found.size());
  };
  yard.say([](vole::Cues& cues) {
    cues.while_touching("walker", "bulb", [](Stage&, Entity, Entity, const Meeting&) {});
    cues.when_part("walker", vole::tagged("seed"), [](Stage&, Entity, Entity) {});
    cues.when_squeezed("crate", [](Stage&, Entity, Entity) {});
    cues.while_touching(vole::with_shape("claw"), "bulb", [](Stage&, Entity, Entity) {});
  });
  yard.tick(300);
  const std::int64_t before = allocations_so_far();
  yard.tick(300);
  CHECK(allocations_so_far() == before);
  CHECK(answers > 0);
}

TEST_CASE("positions that are no numbers move, carry and hold nothing, and do no harm") {
  Yard yard("");
  Stage& stage = *yard.stage;
  const Entity walker = stage.spawn("walker", {100, floor_y});
  const Entity lift = stage.spawn("lift", {200, 120}), lost = stage.spawn("lift", {300, 120});
  const Entity other = stage.spawn("walker", {400, floor_y});
  for (const float bad : {std::nanf(""), HUGE_VALF}) {
    yard.pose(lost).at = {bad, 0};
    yard.pose(other).at = {0, bad};
    stage.move(lost, {4, 0});
    stage.move(other, {4, 0});
    yard.tick(2);
  }
  const Entity gone = stage.spawn("walker", {20, floor_y});
  stage.remove(gone);
  stage.move(gone, {4, 0});
  yard.tick();
  CHECK(yard.pose(walker).at == Vec2{100, floor_y});
  CHECK(yard.pose(lift).at == Vec2{200, 120});
  CHECK_FALSE(stage.bodies().has(lost.index));
}
