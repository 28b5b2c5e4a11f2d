// Entities, kinds coming to life, meetings, and the side mover.
#include <algorithm>
#include <cmath>
#include <map>

#include "alone.hpp"
#include "test_stage.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/input/gather.hpp"
#include "vole/physics/box_in_grid.hpp"
#include "vole/scene/movers/side_motion.hpp"

namespace {

using vole::Entity;
using vole::Vec2;

struct Number {
  int value = 0;
};
template <class V>
void describe(V& v, Number& number) {
  v.state("value", number.value);
}
struct Name {
  std::string text;
};
template <class V>
void describe(V& v, Name& name) {
  v.state("text", name.text);
}

vole::ComponentTypes two_types() {
  vole::ComponentTypes types;
  types.add<Number>("number");
  types.add<Name>("name");
  return types;
}

// A floor at y = 160, walls at x = 0 and 3200.
vole::SolidGrid yard() {
  vole::SolidGrid grid({200, 12}, 16);
  for (int x = 0; x < 200; ++x) grid.set({x, 10}, true);
  return grid;
}

struct Jumper {
  vole::SolidGrid grid = yard();
  vole::SideMover mover;
  vole::Body body;
  vole::Motion motion;
  vole::Touching touching;
  vole::Pose pose{{100, 160}, {100, 160}};
  float rate = 60;

  void tick(float direction, bool pressed, bool held) {
    Alone alone(grid, body);
    vole::MoverTurn turn{{{direction, 0}, pressed, held}, 1 / rate, alone.moving, motion, touching, pose};
    vole::move_sideways(turn, mover);
  }
  // Highest point above the floor of a jump that is held for so many ticks.
  float jump_height(int held_ticks) {
    for (int i = 0; i < 10; ++i) tick(0, false, false);
    float highest = pose.at.y;
    for (int i = 0; i < 200; ++i) {
      tick(0, i == 0, i < held_ticks);
      highest = std::min(highest, pose.at.y);
    }
    return 160 - highest;
  }
};

// The small game with a stage on it.
struct Small : TestStage {
  TempFolder folder;
  vole::Stage& stage;
  vole::InputGather gather;

  Small() : stage((write_small_game(folder), start(folder))), gather(setting->controls) {}
  void tick() {
    input = gather.latch();
    TestStage::tick();
  }
  void hold(const char* key, bool down = true) { gather.add({*vole::find_control(key), down ? 1.0f : 0.0f}); }
  vole::Report wrong;  // with the kinds that were read last
  // As a running game takes a changed file.
  void read_kinds() {
    kinds = vole::read_kinds(folder.path());
    wrong = {};
    compiled->recompile(wrong);
  }
};

}  // namespace

TEST_CASE("entities and components behave as a plain map of maps") {
  vole::Random chance(12);
  const vole::ComponentTypes types = two_types();
  vole::Entities entities(types);
  std::map<std::uint32_t, std::pair<std::optional<int>, std::optional<std::string>>> oracle;  // by index
  std::vector<Entity> alive, gone;
  for (int step = 0; step < 20000; ++step) {
    const std::uint32_t what = chance.below(10);
    if (what < 3) {
      const Entity entity = entities.create();
      REQUIRE(
          oracle.emplace(entity.index, std::pair<std::optional<int>, std::optional<std::string>>{}).second);
      alive.push_back(entity);
    } else if (!alive.empty()) {
      const std::size_t pick = chance.below(static_cast<std::uint32_t>(alive.size()));
      const Entity entity = alive[pick];
      auto& known = oracle[entity.index];
      if (what < 5) {
        known.first = step;
        entities.add(entity, Number{step});
      } else if (what < 7) {
        known.second = std::to_string(step);
        entities.add(entity, Name{std::to_string(step)});
      } else if (what < 9) {
        REQUIRE(entities.has<Number>(entity) == known.first.has_value());
        if (known.first) REQUIRE(entities.get<Number>(entity).value == *known.first);
        if (!known.second) REQUIRE_THROWS_AS(entities.get<Name>(entity), std::out_of_range);
      } else {
        entities.remove(entity);
        oracle.erase(entity.index);
        gone.push_back(entity);
        alive.erase(alive.begin() + static_cast<std::ptrdiff_t>(pick));
      }
    }
    // Until the sweep what was removed is there, and its index is not given to another.
    if (chance.chance(0.2f) || step % 500 == 0) entities.sweep();
    if (step % 500 != 0) continue;
    REQUIRE(entities.count() == oracle.size());
    std::size_t both = 0;
    entities.visit<Number, Name>([&](Entity entity, const Number& number, const Name& name) {
      ++both;
      REQUIRE(number.value == *oracle.at(entity.index).first);
      REQUIRE(name.text == *oracle.at(entity.index).second);
    });
    std::size_t wanted = 0;
    for (const auto& [index, known] : oracle) wanted += known.first && known.second;
    REQUIRE(both == wanted);
    for (const Entity entity : gone) REQUIRE_FALSE(entities.alive(entity));
  }
  REQUIRE_THROWS_AS(entities.add(gone.front(), Number{}), std::out_of_range);
}

TEST_CASE("references hold until the sweep, whatever is added, taken or removed, and the order stays") {
  const vole::ComponentTypes types = two_types();
  vole::Entities entities(types);
  vole::Random chance(4);
  std::vector<Entity> all;
  int next = 0;
  for (int round = 0; round < 50; ++round) {
    std::vector<std::pair<Number*, int>> held;
    entities.visit<Number>([&](Entity, Number& number) { held.emplace_back(&number, number.value); });
    for (int i = 0; i < 60; ++i) {
      const std::size_t pick = all.empty() ? 0 : chance.below(static_cast<std::uint32_t>(all.size()));
      if (all.empty() || chance.chance(0.6f))
        entities.add(all.emplace_back(entities.create()), Number{++next});
      else if (chance.chance(0.5f))
        entities.remove<Number>(all[pick]);
      else
        entities.remove(all[pick]);
    }
    for (const auto& [number, value] : held) REQUIRE(number->value == value);
    entities.sweep();
    std::erase_if(all, [&](Entity entity) { return !entities.alive(entity); });
    int last = 0;
    entities.visit<Number>([&](Entity, const Number& n) {
      REQUIRE(n.value > last);
      last = n.value;
    });
  }
}

TEST_CASE("a visit stops at what was there when it began") {
  const vole::ComponentTypes types = two_types();
  vole::Entities entities(types);
  for (int i = 0; i < 100; ++i) entities.add(entities.create(), Number{i});
  int visited = 0;
  entities.visit<Number>([&](Entity entity, const Number& number) {
    ++visited;
    REQUIRE(visited <= 100);
    entities.add(entities.create(), Number{number.value});
    entities.remove(entity);
  });
  CHECK(visited == 100);
  entities.sweep();
  CHECK(entities.count() == 100);
}

TEST_CASE("a component that the game does not know is refused by its name") {
  const vole::ComponentTypes types;
  vole::Entities entities(types);
  const Entity entity = entities.create();
  CHECK_THROWS_WITH(entities.add(entity, Number{1}),
                    Catch::Contains("does not know the component") && Catch::Contains("Number"));
  vole::ComponentTypes twice = two_types();
  CHECK_THROWS_AS(twice.add<Number>("numeral"), std::logic_error);
  CHECK_THROWS_AS(twice.add<Number>("name"), std::logic_error);
}

TEST_CASE("a jump is as high as its numbers say, and shorter when let go") {
  const float full = Jumper().jump_height(1000);
  // Speed v against gravity g rises v * v / (2 g); ticks make it a little less.
  CHECK(full == Approx(280.0f * 280.0f / (2 * 900)).margin(3));
  float last = 0;
  for (int held = 1; held < 20; ++held) {
    const float height = Jumper().jump_height(held);
    CHECK(height >= last);
    last = height;
  }
  CHECK(Jumper().jump_height(1) < full / 2);
}

TEST_CASE("a jump just after the edge or just before landing still counts") {
  const auto jumps_after_edge = [](int late_ticks) {
    Jumper jumper;
    for (int x = 8; x < 200; ++x) jumper.grid.set({x, 10}, false);
    for (int i = 0; i < 300 && (i < 5 || jumper.touching.ground); ++i) jumper.tick(1, false, false);
    for (int i = 0; i < late_ticks; ++i) jumper.tick(1, false, false);
    jumper.tick(1, true, true);
    return jumper.motion.velocity.y < -200;
  };
  CHECK(jumps_after_edge(0));
  CHECK(jumps_after_edge(4));
  CHECK_FALSE(jumps_after_edge(12));

  const auto jumps_on_landing = [](float height) {
    Jumper jumper;
    jumper.pose.at.y = 160 - height;
    jumper.mover.now.since_ground = 1000;
    jumper.tick(0, true, true);
    for (int i = 0; i < 60; ++i) {
      jumper.tick(0, false, true);
      if (jumper.motion.velocity.y < -200) return true;
    }
    return false;
  };
  CHECK(jumps_on_landing(2));
  CHECK_FALSE(jumps_on_landing(60));
}

TEST_CASE("a held button jumps once") {
  Jumper jumper;
  int jumps = 0;
  for (int i = 0; i < 600; ++i) {
    const bool was_on_ground = jumper.touching.ground;
    jumper.tick(0, i == 20, i >= 20);
    jumps += was_on_ground && !jumper.touching.ground;
  }
  CHECK(jumps == 1);
}

TEST_CASE("walking reaches its speed, stops, and is the same at any tick rate") {
  for (const float rate : {30.0f, 60.0f, 144.0f}) {
    Jumper jumper;
    jumper.rate = rate;
    for (int i = 0; i < static_cast<int>(rate); ++i) jumper.tick(1, false, false);
    CHECK(jumper.motion.velocity.x == 90);
    CHECK(jumper.pose.at.x - 100 == Approx(90 - 90 * 90 / (2 * 600.0f)).margin(2));
    for (int i = 0; i < static_cast<int>(rate); ++i) jumper.tick(0, false, false);
    CHECK(jumper.motion.velocity.x == 0);
    CHECK(jumper.touching.ground);
    CHECK(jumper.pose.at.y == 160);
    CHECK_FALSE(jumper.pose.mirrored);
  }
}

TEST_CASE("motion smaller than the lattice is not lost") {
  Jumper jumper;
  jumper.mover.speed = 0.1f;  // 1/600 of a pixel each tick, less than 1/256
  for (int i = 0; i < 60 * 60; ++i) jumper.tick(1, false, false);
  CHECK(jumper.pose.at.x == Approx(106).margin(0.05));
}

TEST_CASE("no mover gets into a wall, whatever is asked of it") {
  vole::Random chance(77);
  for (int round = 0; round < 60; ++round) {
    Jumper jumper;
    for (int y = 0; y < 10; ++y)
      for (int x = 0; x < 200; ++x) jumper.grid.set({x, y}, chance.chance(0.15f));
    jumper.mover.speed = chance.within(10, 90000);
    jumper.mover.acceleration = 1e6f;
    jumper.mover.fall_cap = chance.within(100, 90000);
    jumper.mover.gravity = chance.within(100, 90000);
    jumper.mover.jump = chance.within(100, 90000);
    if (jumper.grid.blocks(jumper.body.box(jumper.pose.at))) continue;
    for (int i = 0; i < 300; ++i) {
      jumper.tick(chance.within(-1.5f, 1.5f), chance.chance(0.1f), chance.chance(0.5f));
      REQUIRE_FALSE(jumper.grid.blocks(jumper.body.box(jumper.pose.at)));
    }
  }
}

TEST_CASE("a level's places come to life by kind, with their own values over it") {
  Small small;
  const std::string text = vole::read_text(small.folder.path("levels/patch.level.toml"), 100000);
  small.folder.write("levels/patch.level.toml",
                     text + "[[places]]\nkind = \"crumb\"\nat = [40, 8]\nbody = { size = [2, 3] }\n");
  small.stage.load_level("patch");
  CHECK(small.stage.count("mouse") == 1);
  CHECK(small.stage.count("crumb") == 2);
  std::vector<Vec2> sizes;
  small.stage.entities().visit<vole::Body>(
      [&](Entity, const vole::Body& body) { sizes.push_back(body.size); });
  CHECK(sizes == std::vector<Vec2>{{6, 6}, {4, 4}, {2, 3}});
}

TEST_CASE("what a kind or place gets wrong is reported all at once") {
  Small small;
  small.folder.write("kinds.toml",
                     "[mouse]\nsprite = { sheet = \"mose\" }\nbody = { size = [0, 6] }\nbdy = "
                     "{}\n[crumb]\nside_mover = {}\n");
  small.read_kinds();
  const std::string message = error_of([&] { small.stage.load_level("patch"); }, small.folder);
  CHECK(message.find("kinds.toml:3:18: error: 0 is too small; the least is 1") != std::string::npos);
  CHECK(message.find("kinds.toml:4:1: error: no component \"bdy\"; did you mean \"body\"?") !=
        std::string::npos);
  CHECK(message.find("kind \"crumb\" has a side_mover but no body to move") != std::string::npos);
  CHECK(error_of(
            [&] {
              small.stage.spawn("mosue", {0, 0});
            },
            small.folder) == "error: no kind \"mosue\"; did you mean \"mouse\"?");
  CHECK(error_of(
            [&] {
              small.say([](vole::Cues& cues) {
                cues.when_meet("mouse", "crum", [](vole::Stage&, vole::Entity, vole::Entity) {});
              });
            },
            small.folder)
            .find("did you mean \"crumb\"?") != std::string::npos);
}

TEST_CASE("a cue is called once for two kinds that meet, until they part") {
  Small small;
  small.stage.load_level("patch");
  int met = 0;
  small.say([&](vole::Cues& cues) {
    cues.when_meet("mouse", "crumb", [&](vole::Stage& stage, Entity mouse, Entity crumb) {
      ++met;
      CHECK(mouse == stage.first("mouse"));
      CHECK(crumb == stage.first("crumb"));
    });
  });
  small.hold("key ArrowRight");
  for (int i = 0; i < 600 && small.stage.get<vole::Pose>(small.stage.first("mouse")).at.x < 70; ++i)
    small.tick();
  CHECK(met == 1);
  small.hold("key ArrowRight", false);
  small.hold("key ArrowLeft");
  for (int i = 0; i < 120; ++i) small.tick();
  CHECK(met == 2);
}

TEST_CASE("what is removed has no meetings and is gone after the tick") {
  Small small;
  small.stage.load_level("patch");
  const Entity crumb = small.stage.first("crumb");
  const Vec2 at = small.stage.get<vole::Pose>(crumb).at;
  small.stage.spawn("mouse", at);
  small.stage.spawn("mouse", at);
  int met = 0;
  small.say([&](vole::Cues& cues) {
    cues.when_meet("mouse", "crumb", [&](vole::Stage& stage, Entity, Entity other) {
      ++met;
      stage.remove(other);
      CHECK(stage.entities().alive(other));
      CHECK(stage.count("crumb") == 0);
    });
  });
  small.tick();
  CHECK(met == 1);
  CHECK_FALSE(small.stage.entities().alive(crumb));
  CHECK_FALSE(small.stage.first("crumb"));
}

TEST_CASE("a sprite goes on with its clip when its sheet is reloaded") {
  Small small;
  small.stage.load_level("patch");
  for (int i = 0; i < 7; ++i) small.tick();
  small.folder.write("assets/mouse.sheet.toml",
                     "frame = { size = [4, 4] }\n\n[clips.run]\nframes = [9, 10, 11]\nfps = 12\n");
  vole::Report report;
  small.catalog->refresh(report);
  small.tick();
  const auto& sprite = small.stage.get<vole::Sprite>(small.stage.first("mouse"));
  CHECK(sprite.playhead().clip()->frames[0] == 9);
  CHECK(sprite.playhead().ticks() == 8);
  auto& changing = small.stage.get<vole::Sprite>(small.stage.first("mouse"));
  CHECK(error_of([&] { changing.play("rnu"); }, small.folder) ==
        "error: no clip \"rnu\" in \"mouse\"; did you mean \"run\"?");
}

TEST_CASE("a layer's picture covers the canvas from side to side, wherever the camera is") {
  Small small;
  const std::string text = vole::read_text(small.folder.path("levels/patch.level.toml"), 100000);
  const std::size_t at = text.find("[[layers]]");
  small.folder.write("levels/patch.level.toml",
                     text.substr(0, at) +
                         "[[layers]]\nname = \"far\"\npicture = \"mouse\"\nparallax = [0.37, 0.5]\n\n" +
                         text.substr(at));
  small.stage.load_level("patch");
  vole::Random chance(5);
  for (int round = 0; round < 200; ++round) {
    small.stage.camera().bounds = {};
    small.stage.camera().jump_to({chance.within(-500, 500), 16});
    vole::DrawList list;
    list.start({64, 32});
    small.running->draw(list, chance.within(0, 1));
    std::vector<bool> covered(64, false);
    for (const vole::DrawItem& item : list.items()) {
      if (item.layer != 0) continue;
      for (int x = 0; x < 32; ++x) {
        const int column = static_cast<int>(item.picture.at.x) + x;
        if (column >= 0 && column < 64) covered[static_cast<std::size_t>(column)] = true;
      }
    }
    REQUIRE(std::count(covered.begin(), covered.end(), true) == 64);
  }
}

TEST_CASE("a layer's picture that covers leaves no pixel open, and one from the top hangs there") {
  Small small;
  const std::string text = vole::read_text(small.folder.path("levels/patch.level.toml"), 100000);
  const std::size_t at = text.find("[[layers]]");
  const auto first_of = [&](const std::string& keys) {
    small.folder.write("levels/patch.level.toml", text.substr(0, at) +
                                                      "[[layers]]\nname = \"far\"\npicture = \"mouse\"\n" +
                                                      keys + "\n\n" + text.substr(at));
    vole::Stage& stage = small.start(small.folder);
    stage.load_level("patch");
    vole::DrawList list;
    list.start({64, 32});
    small.running->draw(list, 1);
    for (const vole::DrawItem& item : list.items())
      if (item.layer == 0) return item.picture;
    return vole::PictureItem{};
  };
  // The sheet's first frame is 8 x 8, its pivot at its feet.
  CHECK(first_of("cover = true").scale == Vec2{8, 8});
  const auto top_of = [&](const std::string& keys) {
    const vole::PictureItem item = first_of(keys);
    CHECK(item.scale == Vec2{1, 1});
    return item.at.y - static_cast<float>(item.pivot.y);
  };
  CHECK(top_of("edge = \"top\"") == 0);
  CHECK(top_of("edge = \"bottom\"") == 24);
}

TEST_CASE("a thing may have a size of its own, whatever its frame's") {
  Small small;
  small.folder.write("kinds.toml",
                     "[mouse]\nsprite = { sheet = \"mouse\", size = [16, 20], scale = [1, 2] }\n");
  small.start(small.folder).spawn("mouse", {30, 30});
  CHECK(small.drawn().scale == Vec2{2, 5});
}

TEST_CASE("the camera keeps to the level and follows only what is there") {
  Small small;
  small.stage.load_level("patch");
  const Entity mouse = small.stage.first("mouse");
  small.stage.follow(mouse);
  CHECK(small.stage.camera().corner({1, 1}, 1) == vole::IVec2{0, 0});
  small.hold("key ArrowRight");
  for (int i = 0; i < 200; ++i) small.tick();
  CHECK(small.stage.camera().corner({1, 1}, 1) ==
        vole::IVec2{16, 0});  // 80 pixels of level less 64 of canvas
  const Vec2 before = small.stage.camera().middle();
  small.stage.remove(mouse);
  for (int i = 0; i < 10; ++i) small.tick();
  CHECK(small.stage.camera().middle() == before);
  CHECK(small.stage.entities().count() == 1);
}

TEST_CASE("a sprite's blend comes from its kind, its flash from the game") {
  Small small;
  small.folder.write("kinds.toml",
                     "[glow]\nsprite = { sheet = \"mouse\", blend = \"add\", opacity = 0.5 }\n");
  small.read_kinds();
  const Entity glow = small.stage.spawn("glow", {20, 20});
  small.stage.get<vole::Sprite>(glow).flash = {255, 0, 0, 100};
  vole::DrawList list;
  list.start({64, 32});
  small.running->draw(list, 1);
  REQUIRE(list.items().size() == 1);
  CHECK(list.items()[0].picture.blend == vole::Blend::add);
  CHECK(list.items()[0].picture.opacity == 0.5f);
  CHECK(list.items()[0].picture.flash == vole::Colour{255, 0, 0, 100});
  small.folder.write("kinds.toml", "[glow]\nsprite = { sheet = \"mouse\", blend = \"ad\" }\n");
  small.read_kinds();
  CHECK(error_of([&] { small.wrong.throw_if_errors(); }, small.folder) ==
        "kinds.toml:2:37: error: unknown word \"ad\"; did you mean \"add\"?");
  // The last good kind stays.
  CHECK(small.stage.get<vole::Sprite>(small.stage.spawn("glow", {20, 20})).blend == vole::Blend::add);
}

TEST_CASE("cells that change are drawn, solid and kept, as if the file had them so") {
  Small small;
  small.stage.load_level("patch");
  vole::LevelNow& level = small.stage.level();
  const std::vector<std::string> tiles{"", "soil", "grass"};
  vole::Random chance(14);
  std::map<std::pair<int, int>, std::string> wanted;
  for (int y = 0; y < 4; ++y)
    for (int x = 0; x < 10; ++x) wanted[{x, y}] = std::string(level.tile("ground", {x, y}));
  const auto written = wanted;
  for (int round = 0; round < 400; ++round) {
    const vole::IVec2 cell{static_cast<int>(chance.below(10)), static_cast<int>(chance.below(4))};
    const std::string& tile = tiles[chance.below(3)];
    level.put("ground", cell, tile);
    wanted[{cell.x, cell.y}] = tile;
    std::size_t changed = 0;
    for (const auto& [at, name] : wanted) {
      REQUIRE(level.tile("ground", {at.first, at.second}) == name);
      REQUIRE(level.solid().solid(at.first, at.second) == (name == "soil"));
      changed += written.at(at) != name;
    }
    REQUIRE(level.changed().size() == changed);
    if (round % 40 != 0) continue;
    // The changes go with the state, and come over a reloaded file.
    vole::RunningScene again(*small.setting, small.game.steps(), small.game.scenes().get("cues"), {}, 1);
    const vole::StateBytes state = small.state();
    vole::StateReader in(state);
    again.read(in);
    again.bind();
    for (const auto& [at, name] : wanted)
      REQUIRE(again.stage().level().tile("ground", {at.first, at.second}) == name);
    level.bind(small.setting->binding());
    REQUIRE(small.state() == state);
  }
  for (const auto& [at, name] : written) level.put("ground", {at.first, at.second}, name);
  CHECK(level.changed().empty());
  // A layer without rows in the file takes tiles, too.
  level.put("things", {2, 1}, "grass");
  CHECK(level.tile("things", {2, 1}) == "grass");
  CHECK(level.changed().size() == 1);
  level.put("things", {2, 1}, "");
  CHECK(level.changed().empty());
  CHECK(error_of(
            [&] {
              level.put("ground", {0, 0}, "sol");
            },
            small.folder) == "error: no tile \"sol\" in tileset \"soil\"; did you mean \"soil\"?");
  CHECK(error_of(
            [&] {
              level.put("ground", {10, 0}, "soil");
            },
            small.folder)
            .find("has no cell 10, 0: it is 10 x 4") != std::string::npos);
  CHECK(error_of(
            [&] {
              level.put("grund", {0, 0}, "soil");
            },
            small.folder)
            .find("no layer \"grund\"") != std::string::npos);
  // A thing stands on what was put down under it.
  for (int x = 0; x < 10; ++x) level.put("ground", {x, 2}, "soil");
  small.stage.get<vole::Pose>(small.stage.first("mouse")).at = {20, 8};
  for (int i = 0; i < 60; ++i) small.tick();
  CHECK(small.stage.get<vole::Pose>(small.stage.first("mouse")).at.y == 16);
}

TEST_CASE("a level without tiles is open on all sides") {
  Small small;
  small.folder.write("levels/sky.level.toml",
                     "[[layers]]\nname = \"things\"\n[[places]]\nkind = \"mouse\"\nat = [5, 5]\n");
  small.stage.load_level("sky");
  small.hold("key ArrowLeft");
  for (int i = 0; i < 60; ++i) small.tick();
  const Vec2 at = small.stage.get<vole::Pose>(small.stage.first("mouse")).at;
  CHECK(at.x < -40);
  CHECK(at.y > 100);
}

namespace {

template <class S>
concept AsksChance = requires(S& stage) {
  stage.random().next();
};
template <class S>
concept MovesCamera = requires(S& stage) {
  stage.camera().jump_to({0, 0});
};
template <class S>
concept ChangesThings = requires(S& stage) {
  stage.entities().create();
};
template <class S>
concept ChangesLevel = requires(S& stage) {
  stage.level().darken(1);
};

}  // namespace

TEST_CASE("who draws can look at everything of a stage, and change nothing") {
  using vole::Stage;
  CHECK((AsksChance<Stage> && MovesCamera<Stage> && ChangesThings<Stage> && ChangesLevel<Stage>));
  CHECK_FALSE(AsksChance<const Stage>);
  CHECK_FALSE(MovesCamera<const Stage>);
  CHECK_FALSE(ChangesThings<const Stage>);
  CHECK_FALSE(ChangesLevel<const Stage>);
  CHECK(std::is_same_v<decltype(std::declval<const vole::Drawing&>().stage()), const Stage&>);
}
