// Finding things, moving them, walking seen from above, overlaps that last and end, and numbers that are felt at once.
#include <cmath>

#include "alone.hpp"
#include "test_stage.hpp"
#include "test_window.hpp"
#include "vole/asset/font.hpp"
#include "vole/base/names.hpp"
#include "vole/draw/raster.hpp"
#include "vole/level/level.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/scene/movers/body_motion.hpp"
#include "vole/scene/movers/top_motion.hpp"
#include "vole/world/player.hpp"
#include "vole/world/side_mover.hpp"

namespace {

using vole::Entity;
using vole::Stage;
using vole::Vec2;

struct Small : TestStage {
  TempFolder folder;
  Stage* stage = nullptr;
  Small() { write_small_game(folder); }
  Stage& begin() {
    stage = &start(folder);
    stage->load_level("patch");
    return *stage;
  }
  void add(const std::string& file, const std::string& text) {
    folder.write(file, vole::read_text(folder.path(file), 1 << 20) + text);
  }
};

// A room of 12 x 12 cells of 16 pixels with a wall all round and random blocks in it.
vole::SolidGrid room(vole::Random& chance, bool blocks) {
  vole::SolidGrid grid({12, 12}, 16, {true, true, true, true});
  for (int y = 0; y < 12; ++y)
    for (int x = 0; x < 12; ++x) {
      const bool rim = x == 0 || y == 0 || x == 11 || y == 11;
      const bool middle = x > 3 && x < 8 && y > 3 && y < 8;
      grid.set({x, y}, rim || (blocks && !middle && chance.below(5) == 0));
    }
  return grid;
}

struct Walker {
  vole::TopMover mover;
  vole::Body body{{10, 10}, {0, 0}};
  vole::Motion motion;
  vole::Touching touching;
  vole::Pose pose{{96, 96}, {96, 96}};
  void tick(const vole::SolidGrid& grid, Vec2 direction) {
    Alone alone(grid, body);
    vole::MoverTurn turn{{direction, false, false}, 1 / 60.0f, alone.moving, motion, touching, pose};
    vole::move_from_above(turn, mover);
  }
};

struct Seed {};
template <class V>
void describe(V&, Seed&) {}

class Patch : public vole::Scene {
 public:
  void enter(Stage& stage) override { stage.load_level("patch"); }
};
template <class V>
void describe(V&, Patch&) {}

float length(Vec2 v) {
  return std::sqrt(v.x * v.x + v.y * v.y);
}

}  // namespace

TEST_CASE("things are found by the name of their place, by kind and by what they have") {
  Small small;
  small.add(
      "levels/patch.level.toml",
      "\n[[places]]\nkind = \"crumb\"\ncell = [7, 2]\nname = \"last\"\n\n[[places]]\nkind = \"crumb\"\nat = "
      "[20, 8]\nname = \"high\"\n");
  Stage& stage = small.begin();
  const Entity last = stage.named("last");
  CHECK(stage.get<vole::Pose>(last).at == Vec2{60, 24});
  CHECK(stage.place("high") == Vec2{20, 8});
  CHECK(stage.kind_of(last) == "crumb");
  CHECK(stage.box(last) == vole::Rect{{58, 20}, {4, 4}});
  std::vector<Entity> crumbs;
  stage.each("crumb", [&](Entity crumb) {
    crumbs.push_back(crumb);
    stage.spawn("crumb", {1, 1});  // what comes meanwhile is not visited
  });
  CHECK(crumbs.size() == 3);
  CHECK(stage.count("crumb") == 6);
  CHECK(crumbs[1] == last);
  stage.remove(last);
  CHECK_FALSE(stage.named("last"));
  int left = 0;
  stage.each("crumb", [&](Entity) { ++left; });
  CHECK(left == 5);
  CHECK_THROWS_WITH(stage.named("lats"),
                    Catch::Contains("no place \"lats\" in level \"patch\"; did you mean \"last\"?"));
  CHECK_THROWS_WITH(stage.named(""), Catch::Contains("no place \"\""));
  CHECK_THROWS_WITH(stage.each("crub", [](Entity) {}), Catch::Contains("did you mean \"crumb\"?"));
  CHECK_THROWS_WITH(stage.box(stage.entities().create()),
                    Catch::Contains("which is of no kind, has no component \"body\""));
}

TEST_CASE("two places of one name are refused") {
  Small small;
  small.add("levels/patch.level.toml",
            "\n[[places]]\nkind = \"crumb\"\ncell = [7, 2]\nname = \"a\"\n\n[[places]]\nkind = "
            "\"crumb\"\ncell = [8, 2]\nname = \"a\"\n");
  CHECK_THROWS_WITH(small.begin(), Catch::Contains("place \"a\" is defined twice; the first is at"));
}

TEST_CASE("what a thing lacks is said with its kind and the component's name") {
  Small small;
  Stage& stage = small.begin();
  const Entity crumb = stage.first("crumb");
  CHECK_THROWS_WITH(stage.get<vole::Sprite>(crumb), Catch::Contains("the thing of kind \"crumb\" (number ") &&
                                                        Catch::Contains("has no component \"sprite\""));
  CHECK_THROWS_WITH(stage.get<vole::Sprite>({}), "no thing was given whose sprite could be had");
  small.say([](vole::Cues& cues) {
    cues.when_told("look", [](Stage& at, Entity about) { at.get<vole::Sprite>(about); });
    cues.when_meet("mouse", "crumb", [](Stage& at, Entity, Entity other) { at.get<vole::Sprite>(other); });
  });
  stage.tell("look", crumb);
  CHECK_THROWS_WITH(small.tick(), Catch::Contains("when \"look\" was told about the \"crumb\" (thing ") &&
                                      Catch::Contains("has no component \"sprite\""));
  stage.get<vole::Pose>(crumb).at = stage.get<vole::Pose>(stage.first("mouse")).at;
  CHECK_THROWS_WITH(small.tick(), Catch::Contains("when the \"mouse\" (thing ") &&
                                      Catch::Contains("met the \"crumb\" (thing "));
}

TEST_CASE("things are found and met by their tags, whatever their kind") {
  Small small;
  small.add("kinds.toml",
            "\n[seed]\ntags = [\"food\", \"round\"]\nbody = { size = [4, 4] }\n"
            "[nut]\ntags = [\"food\"]\nbody = { size = [4, 4] }\n[stone]\nbody = { size = [4, 4] }\n");
  small.add("levels/patch.level.toml",
            "\n[[places]]\nkind = \"stone\"\ncell = [7, 2]\nname = \"pea\"\ntags = [\"round\"]\n");
  Stage& stage = small.begin();
  const Entity nut = stage.spawn("nut", {60, 60}), stone = stage.spawn("stone", {80, 60}),
               seed = stage.spawn("seed", {100, 60}), pea = stage.named("pea");
  const auto all = [&stage](std::string_view tag) {
    std::vector<Entity> found;
    stage.each_tagged(tag, [&found](Entity entity) { found.push_back(entity); });
    return found;
  };
  CHECK(all("food") == std::vector<Entity>{nut, seed});
  CHECK(all("round") == std::vector<Entity>{pea, seed});
  CHECK((stage.has_tag(seed, "round") && !stage.has_tag(nut, "round") && !stage.has_tag(stone, "food")));
  CHECK_THROWS_WITH(stage.has_tag(seed, "fod"), "error: no kind has the tag \"fod\"; did you mean \"food\"?");
  CHECK_THROWS_WITH(all("rounds"), Catch::Contains("did you mean \"round\"?"));
  CHECK_THROWS_WITH(small.say([](vole::Cues& cues) {
    cues.when_meet("mouse", vole::tagged("foot"), [](Stage&, Entity, Entity) {});
  }),
                    "error: no kind has the tag \"foot\"; did you mean \"food\"?");

  std::vector<std::pair<Entity, Entity>> began, ended;
  small.say([&](vole::Cues& cues) {
    cues.when_meet("stone", vole::tagged("food"),
                   [&](Stage&, Entity a, Entity b) { began.emplace_back(a, b); });
    cues.when_part(vole::tagged("food"), "stone",
                   [&](Stage&, Entity a, Entity b) { ended.emplace_back(a, b); });
  });
  small.tick();
  CHECK(began.empty());
  for (const Entity food : {nut, seed}) stage.get<vole::Pose>(food).at = stage.get<vole::Pose>(stone).at;
  small.tick(2);
  CHECK(began == std::vector<std::pair<Entity, Entity>>{{stone, nut}, {stone, seed}});
  stage.get<vole::Pose>(nut).at.x += 50;
  small.tick();
  CHECK(ended == std::vector<std::pair<Entity, Entity>>{{nut, stone}});
  stage.remove(seed);
  CHECK(all("food") == std::vector<Entity>{nut});

  // In a state they are written with the rest.
  const vole::StateBytes before = small.state();
  stage.get<vole::Tags>(nut).names.emplace_back("old");
  CHECK(small.state() != before);
}

TEST_CASE("tags are a list, in kinds and places") {
  Small wrong;
  wrong.add("kinds.toml", "\n[seed]\ntags = \"food\"\n");
  wrong.begin();
  CHECK_THROWS_WITH(
      wrong.stage->spawn("seed", {0, 0}),
      Catch::Contains("kinds.toml:") && Catch::Contains("a list wanted here, not the text \"food\""));
}

TEST_CASE("overlaps begin, last and end, as boxes do, and each is told once") {
  Small small;
  Stage& stage = small.begin();
  std::vector<std::string> told;
  small.say([&told](vole::Cues& cues) {
    const auto note = [&told](const char* what) {
      return [&told, what](Stage& at, Entity a, Entity b) {
        REQUIRE(at.kind_of(a) == "crumb");
        REQUIRE(at.kind_of(b) == "crumb");
        told.emplace_back(what);
      };
    };
    cues.when_part("crumb", "crumb", note("ends"));
    cues.while_touching("crumb", "crumb", note("lasts"));
    cues.when_meet("crumb", "crumb", note("begins"));
  });
  stage.each("crumb", [&](Entity crumb) { stage.remove(crumb); });
  small.tick();
  const Entity a = stage.spawn("crumb", {20, 8}), b = stage.spawn("crumb", {40, 8});
  vole::Random chance(5);
  bool before = false;
  for (int i = 0; i < 300; ++i) {
    vole::Pose& pose = stage.get<vole::Pose>(a);
    const float from = pose.at.x, to = static_cast<float>(20 + chance.below(chance.chance(0.3f) ? 60 : 24));
    // Step by step: one that passes the other within a tick meets it too.
    bool now = false;
    for (int step = 0; step <= 64; ++step) {
      pose.at.x = from + (to - from) * static_cast<float>(step) / 64;
      now = now || stage.overlap(a, b);
    }
    told.clear();
    CueScene::work = [&](Stage& at) { at.get<vole::Pose>(a).at.x = to; };
    pose.at.x = from;
    small.tick();
    CueScene::work = nullptr;
    const auto count = [&](const char* what) { return std::count(told.begin(), told.end(), what); };
    // Of one kind: both ways round.
    REQUIRE(count("lasts") == (now ? 2 : 0));
    REQUIRE(count("begins") == (now && !before ? 2 : 0));
    REQUIRE(count("ends") == (!now && before ? 2 : 0));
    before = now;
  }
  // What goes away parts from all that it met.
  stage.get<vole::Pose>(a).at = stage.get<vole::Pose>(b).at;
  small.tick();
  told.clear();
  stage.remove(a);
  small.tick(2);
  CHECK(told == std::vector<std::string>{"ends", "ends"});
}

TEST_CASE("who walks seen from above is never in a wall, and no faster in one direction than in another") {
  vole::Random chance(11);
  for (int round = 0; round < 40; ++round) {
    const vole::SolidGrid grid = room(chance, true);
    Walker walker;
    walker.mover.directions = static_cast<vole::WalkDirections>(round % 3);
    walker.mover.speed = static_cast<float>(20 + chance.below(2000));
    Vec2 direction{0, 0};
    for (int i = 0; i < 300; ++i) {
      if (i % 20 == 0) direction = {chance.within(-1.0f, 1.0f), chance.within(-1.0f, 1.0f)};
      const Vec2 was = walker.pose.at;
      walker.tick(grid, direction);
      REQUIRE_FALSE(grid.blocks(walker.body.box(walker.pose.at)));
      REQUIRE(length(walker.motion.velocity) <= walker.mover.speed * 1.0001f);
      REQUIRE(length(walker.pose.at - was) <= walker.mover.speed / 60 + 1.5f / 256);
      REQUIRE(walker.pose.at == vole::on_lattice(walker.pose.at));
    }
  }
}

TEST_CASE("four ways are straight, eight are at most diagonal, and free goes where it is pushed") {
  vole::Random chance(2);
  const vole::SolidGrid grid = room(chance, false);
  const auto way = [&](vole::WalkDirections ways, Vec2 direction) {
    Walker walker;
    walker.mover.directions = ways;
    for (int i = 0; i < 30; ++i) walker.tick(grid, direction);
    return walker.motion.velocity / walker.mover.speed;
  };
  const float half = std::sqrt(0.5f);
  const auto near = [](Vec2 a, Vec2 b) { return length(a - b) < 0.001f; };
  CHECK(near(way(vole::WalkDirections::four, {1, 0.4f}), {1, 0}));
  CHECK(near(way(vole::WalkDirections::four, {-0.3f, -0.9f}), {0, -0.9f}));
  CHECK(near(way(vole::WalkDirections::four, {1, 1}), {1, 0}));
  CHECK(near(way(vole::WalkDirections::eight, {1, 0.3f}), {1, 0}));
  CHECK(near(way(vole::WalkDirections::eight, {1, 0.5f}), {half, half}));
  CHECK(near(way(vole::WalkDirections::eight, {-0.5f, 1}), {-half, half}));
  CHECK(near(way(vole::WalkDirections::eight, {0.1f, -1}), {0, -1}));
  CHECK(near(way(vole::WalkDirections::free, {1, 1}), {half, half}));
  CHECK(near(way(vole::WalkDirections::free, {0.3f, 0.4f}), {0.3f, 0.4f}));
  // With four ways a second key does not turn it, and taking the first away does.
  Walker walker;
  walker.mover.directions = vole::WalkDirections::four;
  for (int i = 0; i < 20; ++i) walker.tick(grid, {0, 1});
  for (int i = 0; i < 5; ++i) walker.tick(grid, {1, 1});
  CHECK(walker.motion.velocity.x == 0);
  for (int i = 0; i < 20; ++i) walker.tick(grid, {1, 0});
  CHECK(walker.motion.velocity.y == 0);
  CHECK(walker.motion.velocity.x > 0);
}

TEST_CASE("a body that is moved by hand stops where tiny steps stop, and knows which wall") {
  Small small;
  small.add("kinds.toml", "[stone]\nbody = { size = [4, 4] }\n");
  Stage& stage = small.begin();
  const Entity stone = stage.spawn("stone", {20, 20});
  stage.entities().add(stone, vole::Motion{});
  stage.entities().add(stone, vole::Touching{});
  stage.move(stone, {1000, 0});
  CHECK(stage.get<vole::Pose>(stone).at == Vec2{78, 20});
  CHECK(stage.get<vole::Touching>(stone).wall_right);
  CHECK_FALSE(stage.get<vole::Touching>(stone).wall_left);
  CHECK(stage.get<vole::Touching>(stone).wall());
  stage.move(stone, {0, 50});
  CHECK(stage.get<vole::Pose>(stone).at == Vec2{78, 24});
  CHECK(stage.get<vole::Touching>(stone).ground);
  CHECK_FALSE(stage.get<vole::Touching>(stone).wall());
  // A thousandth of a pixel a tick adds up.
  for (int i = 0; i < 1000; ++i) stage.move(stone, {-0.001f, 0});
  CHECK(std::abs(stage.get<vole::Pose>(stone).at.x - 77) < 1.0f / 128);
  // Without a motion of its own what is smaller than the lattice is lost, and all else goes.
  const Entity crumb = stage.first("crumb");
  stage.move(crumb, {-1, 0});
  CHECK(stage.get<vole::Pose>(crumb).at == Vec2{51, 24});
}

TEST_CASE("each side of a level is open or solid, by name") {
  Small small;
  const auto goes = [&](const std::string& sides, Vec2 by) {
    const std::string level = vole::read_text(small.folder.path("levels/patch.level.toml"), 1 << 20);
    small.folder.write("levels/patch.level.toml", "sides = " + sides + "\n" + level);
    Stage& stage = small.begin();
    small.folder.write("levels/patch.level.toml", level);
    const Entity crumb = stage.spawn("crumb", {40, 12});
    stage.move(crumb, by);
    return stage.get<vole::Pose>(crumb).at;
  };
  CHECK(goes("{}", {-100, 0}) == Vec2{2, 12});
  CHECK(goes("{ left = \"open\" }", {-100, 0}) == Vec2{-60, 12});
  CHECK(goes("{ right = \"open\" }", {100, 0}) == Vec2{140, 12});
  CHECK(goes("{ right = \"solid\" }", {100, 0}) == Vec2{78, 12});
  CHECK(goes("{}", {0, -100}) == Vec2{40, -88});
  CHECK(goes("{ top = \"solid\" }", {0, -100}) == Vec2{40, 4});
  CHECK_THROWS_WITH(goes("{ top = \"sold\" }", {0, 0}), Catch::Contains("did you mean \"solid\"?"));
}

TEST_CASE("a player needs only what its mover uses") {
  Small small;
  small.folder.write("kinds.toml",
                     "[mouse]\nsprite = { sheet = \"mouse\" }\nbody = { size = [6, 6] }\ntop_mover = {}\n"
                     "player = {}\n[crumb]\nbody = { size = [4, 4] }\n");
  small.begin();
  CHECK_THROWS_WITH(small.tick(), Catch::Contains("no axis \"walk_down\""));
  const std::string controls =
      "[axes.walk]\nmore = [\"key ArrowRight\"]\n[axes.walk_down]\nmore = [\"key ArrowDown\"]\n";
  small.folder.write("controls.toml", controls);
  Stage& stage = small.begin();
  small.input.players[0].axes = {{0, 0}, {-100, 0}};
  small.tick(30);
  const Entity mouse = stage.first("mouse");
  CHECK(stage.get<vole::Pose>(mouse).at.y < 20);
  CHECK(stage.get<vole::Pose>(mouse).at.x == 12);
}

TEST_CASE("an axis of two dimensions moves a player both ways, and each player's thing goes by its own") {
  Small small;
  small.folder.write(
      "kinds.toml",
      "[mouse]\nsprite = { sheet = \"mouse\" }\nbody = { size = [6, 6] }\ntop_mover = { speed = 60 }\n"
      "player = { walk = \"steer\" }\n[crumb]\nbody = { size = [4, 4], use = \"sensor\" }\ntop_mover = { "
      "speed = 60 }\nplayer = { walk = \"steer\", number = 2 }\n");
  small.folder.write("controls.toml",
                     "[axes.steer]\nleft = [\"key KeyA\"]\nright = [\"key KeyD\"]\nup = [\"key KeyW\"]\ndown "
                     "= [\"key KeyS\"]\n"
                     "[players.2.axes.steer]\nright = [\"key ArrowRight\"]\n");
  Stage& stage = small.begin();
  const Entity mouse = stage.first("mouse"), crumb = stage.first("crumb");
  const vole::Vec2 began = stage.get<vole::Pose>(mouse).at, other = stage.get<vole::Pose>(crumb).at;
  small.input.players[0].axes = {{71, -71}};
  small.input.players[1].axes = {{100, 0}};
  small.tick(10);
  const vole::Vec2 gone = stage.get<vole::Pose>(mouse).at - began;
  CHECK(gone.x > 2);
  CHECK(gone.y == Approx(-gone.x));
  const vole::Vec2 by = stage.get<vole::Pose>(crumb).at - other;
  CHECK(by.x == Approx(gone.x * std::sqrt(2.0f)).epsilon(0.02));
  CHECK(by.y == 0);
}

TEST_CASE("numbers of a kind that change in its file are felt by the things that are there") {
  TestSession live;
  live.folder.write(
      "levels/patch.level.toml",
      vole::read_text(live.folder.path("levels/patch.level.toml"), 1 << 20) +
          "\n[[places]]\nkind = \"mouse\"\ncell = [8, 2]\nname = \"slow\"\nside_mover = { speed = 7 }\n");
  live.game.scene<Patch>("patch");
  live.start();
  Stage& stage = live.session->simulation().stage();
  const Entity mouse = stage.first("mouse"), slow = stage.named("slow");
  const auto mover = [&](Entity of) -> vole::SideMover& { return stage.get<vole::SideMover>(of); };
  stage.get<vole::SideMover>(mouse).gravity = 1;  // the game's own doing
  std::string kinds = vole::read_text(live.folder.path("kinds.toml"), 1 << 20);
  const std::string plain = "side_mover = {}";
  kinds.replace(kinds.find(plain), plain.size(), "side_mover = { speed = 33, jump = 400, gravity = 500 }");
  live.folder.write("kinds.toml", kinds);
  CHECK(live.session->refresh().problems().empty());
  CHECK(mover(mouse).jump == 400);
  CHECK(mover(mouse).speed == 33);
  CHECK(mover(mouse).gravity == 1);
  CHECK(mover(slow).jump == 400);
  CHECK(mover(slow).speed == 7);
  CHECK(mover(slow).gravity == 500);
  CHECK(stage.get<vole::Body>(mouse).size == Vec2{6, 6});
}

TEST_CASE("the plain font has a name, and lists of fonts hold fonts only") {
  TempFolder folder;
  write_small_game(folder);
  vole::Catalog catalog(folder.path());
  CHECK(&*catalog.get<vole::Font>("plain") == &vole::plain_font());
  CHECK(catalog.has<vole::Font>("plain"));
  CHECK_THROWS_WITH(catalog.get<vole::Font>("mouse"), Catch::Contains("is not a font"));
  CHECK_THROWS_WITH(catalog.get<vole::Font>("somewhere"),
                    Catch::Contains("known: \"plain\"") && !Catch::Contains("mouse"));
  // A font of the game's own of this name comes first.
  folder.write_picture("assets/plain.png", {16, 8});
  folder.write("assets/plain.sheet.toml", "frame = { size = [8, 8] }\n[font]\nglyphs = [\"ab\"]\n");
  vole::Catalog own(folder.path());
  CHECK(own.get<vole::Font>("plain")->glyphs().size() == 2);
  // Letters reach below the line, and lines stand apart.
  CHECK(vole::plain_font().line_height() == 11);
  for (const char32_t letter : U"gjpqy,;") {
    if (letter == 0) continue;
    const vole::Frame& frame = vole::plain_font().glyph(letter)->frame;
    bool below = false;
    for (int x = frame.area.left(); x < frame.area.right(); ++x)
      below |= frame.picture->row(frame.area.top() + 8)[x] == vole::white;
    CHECK(below);
  }
}

TEST_CASE("names of actions and axes are read back from a recording, whatever they are") {
  vole::Random chance(3);
  const std::string letters = "ab \"\\+-.0'\t\n#=[\xc3\xa9";
  for (int round = 0; round < 200; ++round) {
    vole::Controls controls;
    for (int i = 0; i < 3; ++i) {
      std::string name;
      for (std::uint32_t n = chance.below(6); n > 0; --n)
        name += letters[chance.below(static_cast<std::uint32_t>(letters.size() - 2))];
      if (vole::find_named(controls.actions, name)) continue;
      controls.actions.push_back({name, {}});
      controls.axes.push_back({.name = name});
    }
    vole::TickInput input(controls);
    vole::InputWriter writer(controls);
    vole::Recording recording;
    recording.game = "g";
    recording.checksum.value = "0123456789abcdef";
    recording.ticks_per_second = 60;
    std::vector<vole::TickInput> all;
    for (int tick = 0; tick < 20; ++tick) {
      for (auto& action : input.players[0].actions) {
        const bool held = chance.below(2) != 0;
        action = {held, static_cast<std::uint8_t>(held && !action.held),
                  static_cast<std::uint8_t>(!held && action.held)};
      }
      for (auto& axis : input.players[0].axes)
        axis.x = static_cast<std::int8_t>(static_cast<int>(chance.below(201)) - 100);
      writer.add(tick, input, recording.inputs);
      all.push_back(input);
    }
    recording.ticks = 20;
    TempFolder folder;
    vole::write_recording(folder.path("a.run"), recording);
    const vole::Recording back = vole::read_recording(folder.path("a.run"));
    vole::InputReader reader(back, controls);
    for (const vole::TickInput& wanted : all) REQUIRE(reader.next() == wanted);
  }
}

TEST_CASE("a recording without a checksum is played, and its end is not compared") {
  Small small;
  small.folder.write("jump.run", "game = \"small\"\nticks = 30\ninputs = [\"0 walk 100\", \"5 jump +\"]\n");
  const vole::Recording unchecked = vole::read_recording(small.folder.path("jump.run"));
  CHECK(unchecked.checksum.value.empty());
  CHECK(unchecked.ticks_per_second == 0);
  vole::Project project = vole::read_project(small.folder.path("game.toml"));
  vole::Replay replay(small.folder.path("jump.run"), project,
                      vole::read_controls(small.folder.path("controls.toml")));
  CHECK(replay.is_unchecked());
  CHECK_FALSE(replay.wants_check(30));
  CHECK(replay.next().axis("walk") == 1);
  CHECK_THROWS_WITH(
      (small.folder.write("b.run", "game = \"small\"\nticks = 3\nchecksum = \"12\"\ninputs = []\n"),
       vole::read_recording(small.folder.path("b.run"))),
      Catch::Contains("is not a checksum"));
}

TEST_CASE("a tileset may be tiles of one colour until there is a picture") {
  TempFolder folder;
  write_small_game(folder);
  const auto load = [&](const std::string& text) {
    folder.write("assets/plain.tileset.toml", text);
    return error_of([&] { vole::Catalog(folder.path()).get<vole::Tileset>("plain"); }, folder);
  };
  CHECK(load("size = 8\n[tiles]\nearth = { colour = \"#4a3026\", solid = true }\nsky = { colour = "
             "\"#7fb8b0\" }\n"
             "leaf = { colour = \"#6d8a3f\" }\n")
            .empty());
  vole::Catalog catalog(folder.path());
  const auto tileset = catalog.get<vole::Tileset>("plain");
  CHECK(tileset->tile_size == vole::IVec2{8, 8});
  CHECK(tileset->tiles[0].solid());
  CHECK_FALSE(tileset->tiles[1].solid());
  const vole::Colour colours[] = {
      {0x4a, 0x30, 0x26, 0xff}, {0x7f, 0xb8, 0xb0, 0xff}, {0x6d, 0x8a, 0x3f, 0xff}};
  for (std::size_t i = 0; i < 3; ++i) {
    const vole::Frame& frame = tileset->tiles[i].frames[0];
    CHECK(frame.area.size == vole::IVec2{8, 8});
    for (int y = 1; y < 7; ++y)
      for (int x = 1; x < 7; ++x)
        REQUIRE(frame.picture->row(frame.area.top() + y)[frame.area.left() + x] == colours[i]);
  }
  CHECK_THAT(load("[tiles]\na = { cell = [0, 0] }\n"),
             Catch::Contains("either a \"frame\", which cuts a picture, or the \"size\""));
  CHECK_THAT(load("size = 8\n[tiles]\na = { cell = [0, 0] }\n"),
             Catch::Contains(":3:1: error: tile \"a\" has a \"colour\" here"));
  CHECK_THAT(load("picture = \"soil\"\nframe = { size = [8, 8] }\n[tiles]\na = { colour = \"#000000\" }\n"),
             Catch::Contains("tile \"a\" has a \"cell\" here"));
  CHECK_THAT(load("size = 8\n[tiles]\n"), Catch::Contains("needs [tiles] with colours"));
  std::string many = "size = 256\n[tiles]\n";
  for (int i = 0; i < 300; ++i)
    many.append("t").append(std::to_string(i)).append(" = { colour = \"#000000\" }\n");
  CHECK_THAT(load(many), Catch::Contains("300 tiles of 256 x 256 pixels are too large"));
}

TEST_CASE(
    "a scene draws frames by name or number, and pictures over the whole canvas, on itself or in a layer") {
  Small small;
  Stage& stage = small.begin();
  small.folder.write(
      "assets/named.sheet.toml",
      "picture = \"mouse\"\n[frames]\nlid = { area = [8, 0, 8, 8] }\npot = { area = [0, 8, 8, 8] }\n");
  const auto list_of = [&](const std::function<void(vole::Drawing&)>& draw) {
    vole::DrawList list;
    list.start({40, 20});
    vole::Drawing drawing(stage, list, list.add_layer({0, 0}), 0.5f);
    draw(drawing);
    return std::vector<vole::DrawItem>(list.items().begin(), list.items().end());
  };
  const auto named = list_of([](vole::Drawing& drawing) {
    drawing.frame("named", "pot", {3, 4}, {.mirrored = true});
  });
  const auto counted = list_of([](vole::Drawing& drawing) {
    drawing.frame("named", 1, {3, 4}, {.mirrored = true});
  });
  REQUIRE(named.size() == 1);
  CHECK(named[0].picture.from == vole::IRect{{0, 8}, {8, 8}});
  CHECK(named[0].picture.mirrored);
  CHECK(counted[0].picture.from == named[0].picture.from);
  CHECK(counted[0].picture.at == named[0].picture.at);
  CHECK(list_of([](vole::Drawing& drawing) {
          drawing.frame("named", 99, {0, 0});
        })[0]
            .picture.from == named[0].picture.from);
  CHECK(list_of([](vole::Drawing& drawing) {
          drawing.frame("named", -1, {0, 0});
        })[0]
            .picture.from == vole::IRect{{8, 0}, {8, 8}});
  CHECK_THROWS_WITH(list_of([](vole::Drawing& drawing) {
                      drawing.frame("named", "lidd", {0, 0});
                    }),
                    Catch::Contains("did you mean \"lid\"?"));
  // 40 x 20 in tiles of 8 x 8 from (0, 0) on.
  CHECK(list_of([](vole::Drawing& drawing) { drawing.repeated("named", {0, 0}); }).size() == 5 * 3);
  CHECK(list_of([](vole::Drawing& drawing) {
          drawing.repeated("named", {0, 0}, vole::Repeat::across);
        }).size() == 5);
  const auto cover = list_of([](vole::Drawing& drawing) { drawing.covering("named"); });
  REQUIRE(cover.size() == 1);
  CHECK(cover[0].picture.scale == Vec2{5, 5});

  small.running->tick(small.input);
  vole::DrawList list;
  list.start({64, 32});
  for (const vole::LevelLayer& layer : stage.level().file().layers) list.add_layer(layer.parallax);
  vole::Drawing drawing(stage, list, list.add_layer({0, 0}), 0.5f);
  CHECK(drawing.canvas() == vole::IVec2{64, 32});
  CHECK(drawing.share_of_tick() == 0.5f);
  CHECK(drawing.on("things").layer() == 1);
  CHECK(drawing.on("ground").layer() == 0);
  CHECK_THROWS_WITH(drawing.on("thing"), Catch::Contains("did you mean \"things\"?"));
  TestStage bare;
  const Stage& nothing = bare.start(small.folder);
  vole::Drawing without(nothing, list, 0, 1);
  CHECK_THROWS_WITH(without.on("things"), Catch::Contains("no layer \"things\": no level is loaded"));
}

TEST_CASE("the xray says what its colours mean where there is room for it") {
  Small small;
  small.begin();
  const auto xray = [&](vole::IVec2 canvas) {
    vole::DrawList list;
    list.start(canvas);
    small.running->draw(list, 1, vole::XrayParts::usual());
    list.sort();
    vole::Image image(canvas, vole::white);
    vole::Raster().draw(list, image);
    return image;
  };
  const auto inked = [](const vole::Image& image, vole::Colour colour, int left, int top, int right,
                        int bottom) {
    for (int y = top; y < bottom; ++y)
      for (int x = left; x < right; ++x)
        if (image.at(x, y) == colour) return true;
    return false;
  };
  const vole::Image large = xray({320, 180});
  // In rows along the lower edge: what is there, and nothing that is not.
  const auto in_legend = [&](vole::Colour colour) { return inked(large, colour, 0, 146, 320, 180); };
  CHECK(large.at(319, 179) == large.at(318, 178));   // its ground
  CHECK(in_legend({0xd9, 0x72, 0x4a, 0xff}));        // solid tile
  CHECK(in_legend({0xb1, 0x89, 0xb4, 0xff}));        // sensor
  CHECK(in_legend({0xf2, 0x9e, 0xb8, 0xff}));        // position
  CHECK_FALSE(in_legend({0x6d, 0x8a, 0x3f, 0xff}));  // zone
  CHECK_FALSE(in_legend({0xa9, 0xbb, 0x5c, 0xff}));  // check
  CHECK_FALSE(inked(xray({64, 32}), {0x1b, 0x1a, 0x26, 0xff}, 0, 0, 64, 32));
}

TEST_CASE("what a kind must not have is reported at its place") {
  Small small;
  const auto wrong = [&](const std::string& kind) {
    small.folder.write("kinds.toml", "[crumb]\nbody = { size = [4, 4] }\n[mouse]\n" + kind);
    return error_of([&] { small.begin().spawn("mouse", {0, 0}); }, small.folder);
  };
  CHECK(wrong("body = { size = [6, 6] }\nside_mover = {}\ntop_mover = {}\n")
            .find("kind \"mouse\" is moved by a side_mover and by a top_mover; leave one of them out") !=
        std::string::npos);
  const std::string twice = wrong("carries = { paw = \"crumb\", tail = \"crump\" }\n");
  CHECK(twice.find("3:13: error: a thing without a sprite has no points to attach to") == std::string::npos);
  CHECK(twice.find("a thing without a sprite has no points to attach to") != std::string::npos);
  CHECK(twice.find("did you mean \"crumb\"?") != std::string::npos);
}

TEST_CASE(
    "names that a game gives twice are its own mistake, and a class of several scenes has no one name") {
  vole::Game game("game.toml");
  game.scene<Patch>("patch");
  CHECK_THROWS_WITH(game.scene<Patch>("patch"), "two scenes are named \"patch\"");
  game.scene<Patch>("yard");
  CHECK_THROWS_WITH(game.scenes().name_of<Patch>(), Catch::Contains("several scenes are of the class ") &&
                                                        Catch::Contains("leave_for(\"patch\")"));
  CHECK_THROWS_WITH(game.scenes().name_of<CueScene>(),
                    Catch::Contains("the game does not know the scene ") &&
                        Catch::Contains("CueScene>(\"its name\") to the Game"));
  vole::ComponentTypes types;
  CHECK_THROWS_WITH(types.add<Seed>("body"), "two components are named \"body\"");
}
