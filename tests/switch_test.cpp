// Shapes that are less than their body, that change while the game runs and that come from pictures; probes that are rays;
// tiles that are turned.
#include <cmath>

#include "support.hpp"
#include "vole/physics/cell_form.hpp"
#include "vole/physics/collision_world.hpp"
#include "vole/world/side_mover.hpp"
#include "yard.hpp"

namespace {

using vole::Body;
using vole::BodyUse;
using vole::Entity;
using vole::Pose;
using vole::Shapes;
using vole::Stage;
using vole::TileCell;
using vole::Vec2;

// A digger with a claw before it that only notices, and a shutter that its clip opens.
const std::string diggers = R"([digger]
body = { category = "walkers" }
shapes = [
  { area = [-5, -10, 10, 10] },
  { name = "claw", at = [12, -5], radius = 4, use = "sensor", mirrors = true },
]
side_mover = { speed = 90, acceleration = 100000, deceleration = 100000 }
tags = ["digger"]
)";

}  // namespace

TEST_CASE("a shape that only notices holds nothing, turns with its thing, and meets for itself") {
  Yard yard(diggers);
  Stage& stage = *yard.stage;
  const Entity digger = stage.spawn("digger", {100, floor_y}), bulb = stage.spawn("bulb", {150, floor_y});
  stage.spawn("door", {200, floor_y});
  std::string told;
  std::uint32_t shape = 9;
  yard.say([&](vole::Cues& cues) {
    cues.when_meet(vole::with_shape("claw"), "bulb",
                   [&](Stage&, Entity a, Entity b, const vole::Meeting& how) {
                     told += "c";
                     shape = how.shape;
                     CHECK(a == digger);
                     CHECK(b == bulb);
                     CHECK(how.other_shape == 0);
                   });
    cues.when_part("bulb", vole::with_shape("claw"), [&](Stage&, Entity, Entity) { told += "l"; });
    cues.when_meet("digger", "bulb", [&](Stage&, Entity, Entity) { told += "m"; });
    cues.when_part("digger", "bulb", [&](Stage&, Entity, Entity) { told += "p"; });
  });
  yard.walk(digger, 1);
  while (told.empty()) yard.tick();
  // The claw reaches 16 pixels ahead, and the body 5.
  CHECK(yard.pose(digger).at.x == Approx(128).margin(2));
  CHECK(told == "cm");
  CHECK(shape == 1);
  yard.tick(60);
  CHECK(told == "cmlp");
  // The box alone is held by the door, to the pixel, as boxes are; the claw is in it.
  CHECK(yard.pose(digger).at == Vec2{192, floor_y});
  std::vector<vole::BodyOrCell> found;
  stage.bodies().find(Vec2{206, floor_y - 5}, {.categories = stage.categories({"walkers"}), .tiles = false},
                      found);
  CHECK(found.size() == 1);
  stage.bodies().find(Vec2{206, floor_y - 5},
                      {.categories = stage.categories({"walkers"}), .tiles = false, .sensors = false}, found);
  CHECK(found.size() == 1);
  // Facing left it is on the other side.
  yard.walk(digger, -1);
  yard.tick(2);
  found.clear();
  stage.bodies().find(yard.pose(digger).at + Vec2{-12, -5}, {.tiles = false}, found);
  CHECK(found.size() == 1);
  // In the bulb again; switched off, the claw parts from it, and the body does not.
  yard.pose(digger).at.x = 150;
  told.clear();
  yard.walk(digger, 0);
  yard.tick();
  yard.pose(digger).at.x = 160;
  yard.tick();
  CHECK(told == "mc");
  stage.get<Shapes>(digger).named("claw").use = BodyUse::off;
  yard.tick();
  CHECK(told == "mcl");
  CHECK(error_of([&] { stage.get<Shapes>(digger).named("clow"); }, yard.folder) ==
        "error: no shape \"clow\"; did you mean \"claw\"?");
  const auto wrong = [&] {
    yard.say([](vole::Cues& cues) {
      cues.when_meet(vole::with_shape("clow"), "bulb", [](Stage&, Entity, Entity) {});
    });
  };
  CHECK(error_of(wrong, yard.folder) == "error: no kind has a shape \"clow\"; did you mean \"claw\"?");
}

namespace {

struct Shutters : Yard {
  explicit Shutters(const std::string& switches)
      : Yard(R"([shutter]
body = { size = [6, 40], category = "doors", use = "sensor" }
shapes = [{ area = [-3, -40, 6, 40] }, { name = "latch", at = [0, -20], radius = 9, use = "off" }]
sprite = { sheet = "shutter", layer = "ground" }
probes.near = { area = [-30, -10, 60, 8], categories = ["walkers"] }
switches = [)" + switches +
                 "]\n",
             {}, {}, {"assets/shutter.sheet.toml", R"(colour = "#7a4a33"
size = [6, 40]
[clips.opens]
frames = [0, 0, 0]
fps = 10
loop = false
events = { opened = 2 }
[clips.shut]
frames = [0]
[[rules]]
clip = "opens"
when = ["pulled"]
[[rules]]
clip = "shut"
)"}) {
    shutter = stage->spawn("shutter", {200, floor_y});
  }
  BodyUse use(std::uint32_t place) const {
    static_cast<void>(stage->bodies());
    return stage->bodies().body(shutter.index).use_of(place);
  }
  void pull() { stage->get<vole::Sprite>(shutter).set_fact("pulled", 1); }

  Entity shutter;
};

}  // namespace

TEST_CASE("facts and events switch a body and its shapes, and code says what they are otherwise") {
  SECTION("while a check finds something") {
    Shutters yard(R"({ when = ["near", "not pulled"], use = "solid" })");
    CHECK(yard.use(0) == BodyUse::sensor);
    const Entity walker = yard.stage->spawn("walker", {180, floor_y});
    yard.tick();
    CHECK(yard.use(0) == BodyUse::solid);
    CHECK(yard.use(1) == BodyUse::off);
    yard.pull();
    yard.tick();
    CHECK(yard.use(0) == BodyUse::sensor);
    yard.stage->get<Body>(yard.shutter).use = BodyUse::off;
    CHECK(yard.use(0) == BodyUse::off);
    yard.stage->get<vole::Sprite>(yard.shutter).set_fact("pulled", 0);
    yard.tick();
    CHECK(yard.use(0) == BodyUse::solid);
    yard.stage->remove(walker);
    yard.tick();
    CHECK(yard.use(0) == BodyUse::off);
  }
  SECTION("the first that holds counts, of a shape too") {
    Shutters yard(R"({ shape = "latch", when = ["pulled"], use = "sensor" },
      { shape = "latch", when = ["grounded"], use = "solid" }, { when = ["vx == 0"], use = "solid" })");
    CHECK(yard.use(1) == BodyUse::off);
    yard.tick();
    CHECK(yard.use(0) == BodyUse::solid);
    CHECK(yard.use(1) == BodyUse::solid);
    yard.pull();
    yard.tick();
    CHECK(yard.use(1) == BodyUse::sensor);
  }
  SECTION("from an event of its clip on") {
    Shutters yard(
        R"({ event = "opened", use = "off" }, { shape = "latch", event = "opened", use = "sensor" })");
    yard.tick(5);
    CHECK(yard.use(0) == BodyUse::sensor);
    yard.pull();
    yard.tick(10);
    CHECK(yard.use(0) == BodyUse::sensor);
    yard.tick(10);
    CHECK(yard.use(0) == BodyUse::off);
    CHECK(yard.stage->get<Shapes>(yard.shutter).named("latch").use == BodyUse::sensor);
    // And all of it is in a saved state.
    const vole::StateBytes saved = yard.state();
    yard.stage->get<Shapes>(yard.shutter).named("latch").use = BodyUse::solid;
    yard.stage->get<Body>(yard.shutter).use = BodyUse::solid;
    vole::StateReader in(saved);
    yard.running->read(in);
    yard.running->bind();
    CHECK(yard.use(0) == BodyUse::off);
    yard.stage->get<Body>(yard.shutter).use = BodyUse::solid;
    CHECK(yard.use(1) == BodyUse::sensor);
    yard.tick(3);
    CHECK(yard.use(1) == BodyUse::sensor);
  }
}

TEST_CASE("what is wrong with switches, outlines and rays is reported with its place") {
  const auto told = [](const std::string& switches) {
    std::string message;
    try {
      const Shutters yard(switches);
    } catch (const vole::Error& error) {
      message = error.what();
    }
    return message;
  };
  CHECK(told("") == "");
  CHECK_THAT(told(R"({ use = "off" })"), Catch::Contains("a switch has either a \"when\" or an \"event\""));
  CHECK_THAT(told(R"({ when = ["near"] })"), Catch::Contains("use"));
  CHECK_THAT(told(R"({ when = ["nera"], use = "off" })"),
             Catch::Contains("kinds.toml:22:23: error: no fact \"nera\" of \"shutter\": neither its sheet's "
                             "rules nor its probes have it; did you mean \"near\"?"));
  CHECK_THAT(told(R"({ when = ["vx <"], use = "off" })"), Catch::Contains("\"vx <\" is not a condition"));
  CHECK_THAT(told(R"({ event = "opend", use = "off" })"),
             Catch::Contains("no clip of \"shutter\" has an event \"opend\"; did you mean \"opened\"?"));
  CHECK_THAT(told(R"({ shape = "lach", when = ["near"], use = "off" })"),
             Catch::Contains("no shape \"lach\" of \"shutter\"; did you mean \"latch\"?"));
  const auto wrong = [](const std::string& kind) {
    Yard yard("[wrong]\n" + kind);
    return error_of([&] { yard.stage->spawn("wrong", {0, 0}); }, yard.folder);
  };
  CHECK_THAT(wrong("switches = [{ when = [\"vx > 0\"], use = \"off\" }]\n"),
             Catch::Contains("kind \"wrong\" has no body to switch"));
  CHECK_THAT(wrong("probes.a = { from = [0, 0] }\n"),
             Catch::Contains("a probe that is a ray has a \"from\" and a \"to\""));
  CHECK_THAT(wrong("shapes = [{ outline = \"rok\" }]\n"), Catch::Contains("no sheet \"rok\""));
  CHECK_THAT(wrong("shapes = [{ outline = \"rock\", radius = 4 }]\n"),
             Catch::Contains("an outline has no other form besides"));
}

TEST_CASE("an outline is what is opaque in the picture, around its pivot, and follows the picture's file") {
  Yard yard(
      "[rock]\nshapes = [{ outline = \"rock\" }]\n[wide]\nshapes = [{ outline = \"rocks\", clip = \"b\" }]\n"
      "[late]\nshapes = [{ outline = \"rocks\", frame = \"2\" }]\n"
      "[named]\nshapes = [{ outline = \"parts\", frame = \"right\" }]\n[none]\nshapes = [{ outline = "
      "\"parts\", frame "
      "= \"rigt\" }]\n");
  vole::Image image(vole::IVec2{20, 16});
  for (int y = 8; y < 16; ++y)
    for (int x = 4; x < 16; ++x) image.at(x, y) = vole::white;
  vole::write_png(yard.folder.path("assets/rock.png"), image);
  vole::write_png(yard.folder.path("assets/rocks.png"), image);
  vole::write_png(yard.folder.path("assets/parts.png"), image);
  yard.folder.write(
      "assets/rocks.sheet.toml",
      "frame = { size = [10, 16] }\npivot = [0, 16]\n[clips.a]\nframes = [0]\n[clips.b]\nframes = [1]\n"
      "pivot = [6, 8]\n");
  yard.folder.write("assets/parts.sheet.toml",
                    "pivot = [0, 0]\n[frames.left]\narea = [0, 0, 10, 16]\n[frames.right]\narea "
                    "= [8, 8, 12, 8]\n");
  Stage& stage = yard.start(yard.folder);
  stage.load_level("yard");
  const auto bounds = [&stage](const char* kind) {
    const Entity thing = stage.spawn(kind, {100, 200});
    return stage.bodies().body(thing.index).bounds();
  };
  CHECK(bounds("rock") == vole::Rect{{94, 192}, {12, 8}});
  CHECK(bounds("wide") == vole::Rect{{94, 200}, {6, 8}});
  CHECK(bounds("named") == vole::Rect{{100, 200}, {8, 8}});
  CHECK_THAT(error_of(
                 [&] {
                   stage.spawn("none", {0, 0});
                 },
                 yard.folder),
             Catch::Contains("no frame \"rigt\" in \"parts\"; did you mean \"right\"?"));
  CHECK_THAT(error_of(
                 [&] {
                   stage.spawn("late", {0, 0});
                 },
                 yard.folder),
             Catch::Contains("no frame \"2\" in \"rocks\"; it has 2, counted from 0"));
  // A changed picture is another body.
  const Entity rock = stage.spawn("rock", {300, 200});
  CHECK(stage.bodies().body(rock.index).bounds().size == Vec2{12, 8});
  for (int x = 0; x < 20; ++x) image.at(x, 4) = image.at(x, 5) = vole::white;
  vole::write_png(yard.folder.path("assets/rock.png"), image);
  vole::Report report;
  CHECK(yard.catalog->refresh(report) > 0);
  CHECK(stage.bodies().body(rock.index).bounds() == vole::Rect{{290, 188}, {20, 12}});
  // One of which nothing can be made leaves the body that was there; a new thing has its box.
  vole::write_png(yard.folder.path("assets/rock.png"), vole::Image(vole::IVec2{20, 16}));
  CHECK(yard.catalog->refresh(report) > 0);
  CHECK(stage.bodies().body(rock.index).bounds() == vole::Rect{{290, 188}, {20, 12}});
  CHECK(bounds("rock").size == Vec2{12, 12});
  yard.tick(3);
  vole::write_png(yard.folder.path("assets/rock.png"), image);
  CHECK(yard.catalog->refresh(report) > 0);
  CHECK(bounds("rock").size == Vec2{20, 12});
  // A form that code changes is another body too.
  vole::ShapeText& first = stage.get<Shapes>(rock).list[0].value;
  first.frame.value = "0";
  CHECK(stage.bodies().body(rock.index).bounds().size == Vec2{20, 12});
  first = {};
  first.at = Vec2{0, -4};
  first.radius = 4.0f;
  CHECK(stage.bodies().body(rock.index).bounds() == vole::Rect{{296, 192}, {8, 8}});
  first.radius = 5.0f;
  CHECK(stage.bodies().body(rock.index).bounds() == vole::Rect{{295, 191}, {10, 10}});
  stage.entities().remove<Shapes>(rock);
  CHECK(stage.bodies().body(rock.index).bounds().size == Vec2{12, 12});
}

TEST_CASE("a check that is a ray ends at the first that it asks for, and turns with its thing") {
  Yard yard(R"([owl]
body = { size = [8, 8], use = "sensor" }
probes.prey = { from = [4, -5], to = [120, -5], categories = ["walkers", "doors"] }
)");
  Stage& stage = *yard.stage;
  const Entity owl = stage.spawn("owl", {100, floor_y}), walker = stage.spawn("walker", {180, floor_y});
  CHECK(stage.probe(owl, "prey"));
  CHECK(stage.found(owl, "prey") == walker);
  const Entity door = stage.spawn("door", {150, floor_y});
  CHECK(stage.found(owl, "prey") == door);
  yard.pose(owl).mirrored = true;
  CHECK_FALSE(stage.probe(owl, "prey"));
  CHECK_FALSE(stage.found(owl, "prey"));
  yard.pose(door).at.x = 20;
  CHECK(stage.found(owl, "prey") == door);
}

TEST_CASE("a cell may be mirrored and turned, in the file and while the game runs, and its shape is too") {
  const auto rows = [](const std::string& first) {
    std::string all = "\"" + first + std::string(40 - first.size(), '.') + "\",\n";
    for (int y = 1; y < 16; ++y) all += "\"" + std::string(40, '.') + "\",\n";
    return all;
  };
  Yard yard(
      "",
      "\"odd, name\" = { colour = \"#ffffff\", corners = [[0, 16], [4, 2], [16, 16]], one_way = \"up\" }\n",
      rows("/abcdefg"), {},
      "\"a\" = \"bank, mirrored\"\n\"b\" = \"bank, turned 90\"\n\"c\" = \"odd, name, mirrored, turned 270\"\n"
      "\"d\" = \"odd, name\"\n\"e\" = \"soil,turned 180\"\n\"f\" = \"odd, name, turned 180\"\n"
      "\"g\" = \"plank, mirrored, turned 180\"\n");
  vole::LevelNow& level = yard.stage->level();
  const vole::CellForm bank(vole::TileShape::rise, 16);
  vole::CellForm odd(vole::Shape::polygon(std::vector<Vec2>{{0, 16}, {4, 2}, {16, 16}}), 16);
  odd.one_way = vole::OneWay::up;
  odd.shadow = false;  // light goes where things jump through
  const auto form = [&level](int x) { return *level.solid().form(x, 0); };
  CHECK(form(0) == bank);
  CHECK(form(1) == bank.mirrored());
  CHECK(form(2) == bank.turned(1));
  CHECK(form(3) == odd.mirrored().turned(3));
  CHECK(form(3).one_way == vole::OneWay::left);
  CHECK(form(4) == odd);
  CHECK(form(5).is_full());
  CHECK(form(6) == odd.turned(2));
  CHECK(level.tile("ground", {3, 0}) == "odd, name");
  CHECK(level.cell("ground", {3, 0}) == TileCell{3, true, 3});
  level.put("ground", {0, 5}, "bank, mirrored, turned 90");
  CHECK(*level.solid().form(0, 5) == bank.mirrored().turned(1));
  CHECK(level.changed().size() == 1);
  level.put("ground", {1, 0}, "bank");
  level.put("ground", {1, 0}, "bank, mirrored");
  CHECK(level.changed().size() == 1);
  const vole::StateBytes saved = yard.state();
  level.put("ground", {0, 5}, "");
  vole::StateReader in(saved);
  yard.running->read(in);
  yard.running->bind();
  CHECK(level.cell("ground", {0, 5}) == TileCell{1, true, 1});
  const auto message = [&](const char* tile) {
    return error_of([&] { level.put("ground", {0, 0}, tile); }, yard.folder);
  };
  CHECK_THAT(message("bnak, mirrored"),
             Catch::Contains("no tile \"bnak\" in tileset \"soil\"; did you mean \"bank\"?"));
  CHECK_THAT(message("bank, mirored"), Catch::Contains("\"mirored\" does not say how a tile lies"));
  CHECK_THAT(message("bank, turned 90, mirrored"), Catch::Contains("\"mirrored\" does not say"));
  CHECK_THAT(message("bank, turned 90, turned 90"), Catch::Contains("\"turned 90\" does not say"));
  CHECK_THAT(message("bank,"), Catch::Contains("\"\" does not say"));
}

TEST_CASE("who walks up a slope takes along what stands on it") {
  Yard yard(
      "[cart]\nbody = { size = [20, 10], category = \"lifts\" }\nside_mover = { speed = 60, acceleration = "
      "100000, "
      "deceleration = 100000 }\n",
      "", hill_rows());
  const Entity cart = yard.stage->spawn("cart", {100, floor_y}),
               walker = yard.stage->spawn("walker", {103, floor_y - 10});
  yard.tick(3);
  const Vec2 off = yard.pose(walker).at - yard.pose(cart).at;
  for (const float way : {1.0f, -1.0f}) {
    yard.walk(cart, way);
    for (int tick = 0; tick < 150; ++tick) {
      yard.tick();
      CAPTURE(way, tick, yard.pose(cart).at.x, yard.pose(cart).at.y);
      const Vec2 now = yard.pose(walker).at - yard.pose(cart).at;
      REQUIRE(std::abs(now.x - off.x) < 0.02f);
      REQUIRE(std::abs(now.y - off.y) < 0.02f);
      REQUIRE(yard.touching(walker).ground_thing == cart);
    }
    if (way > 0) CHECK(yard.pose(cart).at.y == floor_y - 64);
  }
  CHECK(yard.pose(cart).at.y == floor_y);
}
