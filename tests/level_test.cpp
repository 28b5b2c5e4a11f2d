// What levels are made of besides rows of letters: CSV, looks, zones, paths, links, scattered things, tiles' own values.
#include "vole/level/level.hpp"

#include <fmt/core.h>

#include <cmath>
#include <map>
#include <set>

#include "test_stage.hpp"
#include "vole/base/names.hpp"
#include "vole/base/writing.hpp"
#include "vole/draw/raster.hpp"
#include "vole/input/intent.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/world/along_path.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/place_link.hpp"
#include "vole/world/zone.hpp"

using Catch::Contains;
using vole::IVec2;
using vole::Vec2;

namespace {

struct Lever {
  vole::PlaceLink gate;
  std::vector<vole::PlaceLink> lamps;
};
template <class V>
void describe(V& v, Lever& lever) {
  v("gate", lever.gate);
  v("lamps", lever.lamps);
}
struct Pond {
  int depth = 1;
};
template <class V>
void describe(V& v, Pond& pond) {
  v("depth", pond.depth, vole::within(1, 9));
}

struct LevelStage : TestStage {
  TempFolder folder;

  LevelStage() {
    game.knows<Lever>("lever").knows<Pond>("pond");
    write_small_game(folder);
  }
  void tileset(const std::string& more) {
    folder.write("assets/soil.tileset.toml",
                 "frame = { size = [8, 8] }\n[tiles]\nsoil = { cell = [0, 0], solid = true }\ngrass = { cell "
                 "= [1, 0] }\n" +
                     more);
  }
  // A level of 20 x 6 cells with a floor, and what the test adds to it.
  void level(const std::string& more, const std::string& name = "long") {
    std::string rows;
    for (int y = 0; y < 6; ++y) rows += fmt::format("  \"{}\",\n", std::string(20, y < 5 ? '.' : '#'));
    folder.write("levels/" + name + ".level.toml",
                 "tileset = \"soil\"\nletters = { \".\" = \"\", \"#\" = \"soil\", \",\" = \"grass\" "
                 "}\n[[layers]]\nname = "
                 "\"ground\"\nrows = [\n" +
                     rows + "]\n[[layers]]\nname = \"things\"\n" + more);
  }
  std::string wrong(const std::string& more) {
    level(more);
    return error_of([&] { vole::Catalog(folder.path()).get<vole::Level>("long"); }, folder);
  }
  vole::Stage& load(const std::string& more) {
    level(more);
    vole::Stage& stage = start(folder);
    stage.load_level("long");
    return stage;
  }
};

float length_of(Vec2 way) {
  return std::sqrt(way.x * way.x + way.y * way.y);
}

std::string place(const std::string& its) {
  return "[[places]]\nkind = \"crumb\"\n" + its + "\n";
}

}  // namespace

TEST_CASE("a level of CSV is the level of rows that says the same") {
  TempFolder folder;
  write_small_game(folder);
  vole::Random chance(8);
  const std::string head =
      "tileset = \"soil\"\nletters = { \".\" = \"\", \"#\" = \"soil\", \",\" = \"grass, mirrored\" }\n";
  for (int round = 0; round < 40; ++round) {
    const IVec2 size{static_cast<int>(chance.below(60)) + 1, static_cast<int>(chance.below(40)) + 1};
    std::string rows, csv;
    for (int y = 0; y < size.y; ++y) {
      rows += "\"";
      for (int x = 0; x < size.x; ++x) {
        const std::uint32_t what = chance.below(3);
        rows += ".#,"[what];
        const std::array<std::array<std::string, 2>, 3> fields{
            {{".", ""}, {"#", "soil"}, {"\",\"", "\"grass, mirrored\""}}};
        // A line of one empty field at the end would be no row.
        csv += (x > 0 ? "," : "") + fields[what][size.x > 1 ? chance.below(2) : 0];
      }
      rows += "\",\n";
      csv += chance.chance(0.5f) ? "\n" : "\r\n";
    }
    folder.write("levels/rows.level.toml", head + "[[layers]]\nname = \"ground\"\nrows = [\n" + rows + "]\n");
    folder.write("levels/csv.level.toml", head + "[[layers]]\nname = \"ground\"\ncsv = \"cells/a.csv\"\n");
    folder.write("levels/cells/a.csv", csv);
    vole::Catalog catalog(folder.path());
    const auto one = catalog.get<vole::Level>("rows"), other = catalog.get<vole::Level>("csv");
    REQUIRE(one->cells == size);
    REQUIRE(other->cells == size);
    REQUIRE(one->layers[0].tiles == other->layers[0].tiles);
    for (int y = 0; y < size.y; ++y)
      for (int x = 0; x < size.x; ++x) REQUIRE(one->solid.solid(x, y) == other->solid.solid(x, y));
  }
  // The level follows its CSV.
  vole::Catalog catalog(folder.path());
  const auto level = catalog.get<vole::Level>("csv");
  folder.write("levels/cells/a.csv", "#,#\n,\n");
  vole::Report report;
  catalog.refresh(report);
  CHECK(level->cells == IVec2{2, 2});
  // And what is wrong with it is told where it is; the last good one stays.
  folder.write("levels/cells/a.csv", "#,soyl\n#,#\n1;2;3,soyl\n");
  catalog.refresh(report);
  CHECK(level->cells == IVec2{2, 2});
  CHECK(error_of([&] { report.throw_if_errors(); }, folder) ==
        "levels/cells/a.csv:3:1: error: \"1;2;3\" is no letter of [letters], and no tile; fields are "
        "separated by commas\n"
        "levels/cells/a.csv:1:3: error: \"soyl\" is no letter of [letters], and no tile; did you mean "
        "\"soil\"? (2 times)");
  const auto wrong = [&](const std::string& csv, const std::string& layer = "csv = \"cells/a.csv\"") {
    folder.write("levels/cells/a.csv", csv);
    folder.write("levels/csv.level.toml", head + "[[layers]]\nname = \"ground\"\n" + layer + "\n");
    return error_of([&] { vole::Catalog(folder.path()).get<vole::Level>("csv"); }, folder);
  };
  CHECK(wrong("#,#\n#\n") ==
        "levels/cells/a.csv:2:1: error: this row has 1 fields, but the level is 2 cells wide");
  CHECK_THAT(wrong("#,#\n", "rows = [\"##\"]\ncsv = \"cells/a.csv\""),
             Contains("has either \"rows\" or a \"csv\""));
  CHECK_THAT(wrong("#\n", "csv = \"../game.toml\""), Contains("levels/csv.level.toml:5:7: error:"));
  CHECK_THAT(wrong("#\n", "csv = \"cells/b.csv\""), Contains("cells/b.csv"));
  CHECK_THAT(wrong(""), Contains("has no rows"));
  CHECK_THAT(wrong("#,#\"\n"), Contains("levels/cells/a.csv:1:4: error: a quote within a field"));
}

TEST_CASE("tilesets are cut by parts, rows and frames, into tiles of any size") {
  LevelStage test;
  test.folder.write_picture("assets/soil.png", {64, 32}, {0x4a, 0x30, 0x26, 0xff});
  const auto load = [&](const std::string& text) {
    test.folder.write("assets/soil.tileset.toml", "frame = { size = [16, 8] }\n" + text);
    return error_of([&] { vole::Catalog(test.folder.path()).get<vole::Tileset>("soil"); }, test.folder);
  };
  REQUIRE(load("[tiles]\nsoil = { cell = [0, 0], shape = \"rise\" }\nstone = { cells = [[1, 1], [2, 2]], "
               "solid = true }\n"
               "hedge = { row = 3 }\nwater = { frames = [[0, 1], [0, 2]], seconds = [0.5, 0.25], friction = "
               "0.2, tags = [\"wet\"] }\n"
               "grass = { cell = [3, 0] }\n")
              .empty());
  vole::Catalog catalog(test.folder.path());
  const auto tileset = catalog.get<vole::Tileset>("soil");
  CHECK(vole::names_of(tileset->tiles) == std::vector<std::string>{"soil", "stone 0", "stone 1", "stone 2",
                                                                   "stone 3", "hedge 0", "hedge 1", "hedge 2",
                                                                   "hedge 3", "water", "grass"});
  CHECK(tileset->tiles[3].frames[0].area == vole::IRect{{16, 16}, {16, 8}});
  CHECK(tileset->tiles[8].frames[0].area.at == IVec2{48, 24});
  // A slope of a flat tile: it rises by 8 over 16.
  CHECK(tileset->tiles[0].form->shape().bounds() == vole::Rect{{0, 0}, {16, 8}});
  vole::TileTable table;
  table.add(tileset.shared());
  std::vector<vole::Frame> frames = table.frames();
  const int water = table.paint("water").cell.tile;
  for (int tick = 0; tick < 120; ++tick) {
    table.put_moving(frames, tick, 60);
    REQUIRE(frames[static_cast<std::size_t>(water)].area.at.y == (tick % 45 < 30 ? 8 : 16));
  }
  CHECK_THAT(error_of([&] { table.paint("soil, turned 90"); }, test.folder),
             Contains("tiles of 16 x 8 pixels cannot be turned by 90; only by 180"));
  CHECK(table.paint("soil, mirrored, turned 180").cell.quarters == 2);
  const std::string start = "assets/soil.tileset.toml:";
  CHECK_THAT(load("[tiles]\na = { cells = [[1, 1], [0, 2]] }\n"),
             Contains(start + "3:15: error: the cells of tile \"a\" end before they begin"));
  CHECK_THAT(load("[tiles]\na = { cells = [[0, 0], [4, 0]] }\n"),
             Contains("tile \"a\" is at column 4, row 0, but the picture has 4 columns and 4 rows"));
  CHECK_THAT(load("[tiles]\na = { cell = [0, 0], row = 1 }\n"),
             Contains("has one of \"cell\", \"cells\", \"row\" and \"frames\""));
  CHECK_THAT(load("[tiles]\na = { cell = [0, 0], fps = 3 }\n"),
             Contains("tile \"a\" has times, and no \"frames\""));
  CHECK_THAT(load("[tiles]\na = { frames = [] }\n"), Contains("tile \"a\" has no frames"));
  CHECK_THAT(load("[tiles]\na = { frames = [[0, 0]], seconds = [1, 2] }\n"),
             Contains("tile \"a\" has 1 frames and 2 times for them"));
  CHECK_THAT(load("[tiles]\na = { row = 0 }\n\"a 1\" = { cell = [0, 0] }\n"),
             Contains("two tiles or materials are named \"a 1\""));
}

TEST_CASE("a level of several tilesets finds tiles by their names, and tells those that are in two") {
  LevelStage test;
  test.folder.write("assets/other.tileset.toml",
                    "size = 8\n[tiles]\nsoil = { colour = \"#7a4a33\" }\nclay = { colour = \"#d9724a\", "
                    "solid = true, category = \"mud\" }\n");
  const auto text = [](const std::string& letter) {
    return "tileset = [\"soil\", \"other\"]\nletters = { \"#\" = \"" + letter +
           "\", c = \"clay\" }\n[[layers]]\nname = \"ground\"\nrows = [\"#c\"]\n";
  };
  const auto load = [&](const std::string& its) {
    test.folder.write("levels/two.level.toml", its);
    return error_of([&] { vole::Catalog(test.folder.path()).get<vole::Level>("two"); }, test.folder);
  };
  CHECK(load(text("soil")) ==
        "levels/two.level.toml:2:19: error: several tilesets have \"soil\"; write \"soil:soil\", or another "
        "tileset's name before it");
  CHECK(load(text("other:soil, mirrored")).empty());
  vole::Catalog catalog(test.folder.path());
  const auto level = catalog.get<vole::Level>("two");
  CHECK_FALSE(level->solid.solid(0, 0));
  CHECK(level->solid.form(1, 0)->category == 1);
  CHECK(level->tiles.categories()[1].value == "mud");
  test.folder.write("assets/other.tileset.toml",
                    "size = [8, 16]\n[tiles]\nclay = { colour = \"#d9724a\" }\n");
  CHECK(load(text("soil")) ==
        "levels/two.level.toml:1:20: error: the tiles of \"other\" are 8 x 16 pixels, and those of \"soil\" "
        "8 x 8; all tilesets of a level have tiles of one size");
  CHECK_THAT(load("tileset = [\"soil\", \"soil\"]\n[[layers]]\nname = \"a\"\n"),
             Contains("1:20: error: the tileset \"soil\" is named twice"));
}

TEST_CASE("places lie at any spot of their cell, off it, and turned about") {
  LevelStage test;
  vole::Stage& stage =
      test.load(place("cell = [2, 1]") + place("cell = [2, 1]\npivot = \"top left\"\nmirrored = true") +
                place("cell = [2, 1]\npivot = \"centre\"\noffset = [4, -1.5]") +
                place("at = [30, 5]\noffset = [-30, 5]"));
  std::vector<Vec2> at;
  std::vector<bool> left;
  stage.each("crumb", [&](vole::Entity crumb) {
    at.push_back(stage.get<vole::Pose>(crumb).at);
    left.push_back(stage.get<vole::Pose>(crumb).mirrored);
  });
  CHECK(at == std::vector<Vec2>{{20, 16}, {16, 8}, {24, 10.5f}, {0, 10}});
  CHECK(left == std::vector<bool>{false, true, false, false});
  CHECK_THAT(test.wrong(place("cell = [1, 1]\npivot = \"midle\"")), Contains("unknown word \"midle\""));
}

TEST_CASE("a thing refers to another by the name of its place") {
  LevelStage test;
  const std::string gate = place("cell = [5, 2]\nname = \"east gate\"");
  const auto lever = [](const std::string& its) {
    return place("cell = [1, 2]\nname = \"lever\"\nlever = " + its);
  };
  // Also to one that comes after it, and to itself.
  vole::Stage& stage = test.load(lever("{ gate = \"east gate\", lamps = [\"lever\", \"\"] }") + gate);
  const auto& its = stage.get<Lever>(stage.named("lever"));
  CHECK(its.gate.thing == stage.named("east gate"));
  CHECK(its.lamps[0].thing == stage.named("lever"));
  CHECK_FALSE(its.lamps[1].thing);
  // It is part of the state, and found again after a change of the file.
  const vole::StateBytes state = test.state();
  vole::RunningScene again(*test.setting, test.game.steps(), test.game.scenes().get("cues"), {}, 1);
  vole::StateReader in(state);
  again.read(in);
  again.bind();
  CHECK(again.stage().get<Lever>(again.stage().named("lever")).gate.thing == stage.named("east gate"));
  stage.remove(stage.named("east gate"));
  test.tick();
  test.level(lever("{ gate = \"west gate\", lamps = [\"lever\", \"\"] }") +
             place("cell = [6, 2]\nname = \"west gate\""));
  vole::Report report;
  test.catalog->refresh(report);
  report.throw_if_errors();
  test.tick();
  CHECK(stage.get<Lever>(stage.named("lever")).gate.place.value ==
        "east gate");  // who stays, stays as it was
  // A level that asks for what is not there is told once, and the last good one stays.
  test.level(lever("{ gate = \"nobody\" }") + place("cell = [7, 2]"));
  test.catalog->refresh(report);
  report.throw_if_errors();
  CHECK(error_of([&] { test.tick(); }, test.folder) ==
        "levels/long.level.toml:19:18: error: no place \"nobody\" in level \"long\"; known: \"lever\"");
  test.tick(3);
  CHECK(stage.count("crumb") == 2);
  CHECK(stage.named("west gate"));
  test.level(lever("{}") + place("cell = [7, 2]"));
  test.catalog->refresh(report);
  test.tick();
  CHECK(stage.count("crumb") == 2);
  CHECK(error_of([&] { stage.named("west gate"); }, test.folder) != "");
  // Brought to life by code, too.
  test.level(gate);
  test.start(test.folder).load_level("long");
  vole::Stage& other = test.running->stage();
  vole::TomlValue over = vole::parse_toml("lever = { gate = \"east gate\" }", "code");
  const vole::Entity crumb = other.spawn("crumb", {8, 8}, over);
  CHECK(other.get<Lever>(crumb).gate.thing == other.named("east gate"));
  // What code has set without a name stays, whoever comes to life.
  other.get<Lever>(crumb).gate = {{}, crumb};
  other.spawn("crumb", {8, 8}, over);
  CHECK(other.get<Lever>(crumb).gate.thing == crumb);
  // A wrong name is told, and nothing is loaded.
  test.level(lever("{ gate = \"est gate\" }") + gate);
  vole::Stage& fresh = test.start(test.folder);
  CHECK(error_of([&] { fresh.load_level("long"); }, test.folder) ==
        "levels/long.level.toml:19:18: error: no place \"est gate\" in level \"long\"; did you mean \"east "
        "gate\"?");
  CHECK_FALSE(fresh.has_level());
  test.level(lever("{ gate = 3 }"));
  CHECK_THAT(error_of([&] { test.start(test.folder).load_level("long"); }, test.folder),
             Contains("a text in quotes wanted here"));
}

TEST_CASE("tiles have values of the game's own, and tags") {
  LevelStage test;
  test.tileset("water = { cells = [[0, 0], [1, 0]], pond = { depth = 4 }, tags = [\"wet\", \"cold\"] }\n");
  vole::Stage& stage = test.load("");
  vole::LevelNow& level = stage.level();
  level.put("ground", {3, 1}, "water 1, turned 180");
  REQUIRE(level.find<Pond>("ground", {3, 1}) != nullptr);
  CHECK(level.find<Pond>("ground", {3, 1})->depth == 4);
  CHECK(level.find<Pond>("ground", {3, 5}) == nullptr);
  CHECK(level.find<Pond>("ground", {-1, 99}) == nullptr);
  CHECK(level.find<Lever>("ground", {3, 1}) == nullptr);
  CHECK(level.has_tag("ground", {3, 1}, "cold"));
  CHECK_FALSE(level.has_tag("ground", {3, 1}, "warm"));
  CHECK_FALSE(level.has_tag("ground", {3, 2}, "cold"));
  CHECK(level.cell_at({25.5f, 15.9f}) == IVec2{3, 1});
  CHECK(level.cell_at({-0.5f, 0}) == IVec2{-1, 0});
  test.tileset("water = { cells = [[0, 0], [1, 0]], pond = { depth = 40 }, pont = {} }\n");
  CHECK(error_of([&] { test.start(test.folder).load_level("long"); }, test.folder) ==
        "assets/soil.tileset.toml:5:54: error: 40 is too large; the most is 9\n"
        "assets/soil.tileset.toml:5:60: error: no component \"pont\"; did you mean \"pond\"?");
}

TEST_CASE("on slippery tiles one speeds up and stops as much slower as they say") {
  LevelStage test;
  const auto slide = [&](const std::string& friction) {
    test.tileset("ice = { cell = [0, 0], solid = true, friction = " + friction + " }\n");
    test.folder.write("kinds.toml",
                      "[mouse]\nbody = { size = [6, 6] }\nside_mover = { speed = 200, acceleration = 120, "
                      "deceleration = 60 }\n[crumb]\n");
    std::string rows;
    for (int y = 0; y < 6; ++y) rows += fmt::format("  \"{}\",\n", std::string(200, y < 5 ? '.' : '#'));
    test.folder.write("levels/ice.level.toml",
                      "tileset = \"soil\"\nletters = { \".\" = \"\", \"#\" = \"ice\" }\n[[layers]]\nname = "
                      "\"ground\"\nrows = [\n" +
                          rows + "]\n[[places]]\nkind = \"mouse\"\nat = [100, 40]\n");
    vole::Stage& stage = test.start(test.folder);
    stage.load_level("ice");
    const vole::Entity mouse = stage.first("mouse");
    test.tick(2);
    REQUIRE(stage.get<vole::Touching>(mouse).ground);
    stage.get<vole::Intent>(mouse).direction = {1, 0};
    test.tick(60);
    const float fast = stage.get<vole::Motion>(mouse).velocity.x;
    stage.get<vole::Intent>(mouse).direction = {0, 0};
    test.tick(30);
    return Vec2{fast, fast - stage.get<vole::Motion>(mouse).velocity.x};
  };
  const Vec2 plain = slide("1"), ice = slide("0.25");
  CHECK(plain.x == Approx(120).epsilon(0.01));
  CHECK(ice.x == Approx(plain.x / 4).epsilon(0.01));
  CHECK(ice.y == Approx(plain.y / 4).epsilon(0.01));
}

TEST_CASE("a level that is edited so that things stand in walls harms nobody, and lets go when it is fixed") {
  vole::Random chance(71);
  LevelStage test;
  test.folder.write(
      "kinds.toml",
      "[mouse]\nsprite = { sheet = \"mouse\" }\nbody = { size = [6, 6] }\nside_mover = { jump = 300 }\n"
      "[flier]\nbody = { size = [6, 6] }\ntop_mover = {}\n"
      "[ball]\nbody = {}\nshapes = [{ at = [0, -3], radius = 3 }]\nside_mover = {}\n"
      "[cart]\nbody = { size = [8, 4] }\nalong_path = { path = \"round\" }\n");
  const std::vector<std::string> kinds{"mouse", "flier", "ball", "cart"};
  const auto write = [&](double share) {
    std::string rows;
    for (int y = 0; y < 6; ++y) {
      rows += "\"";
      for (int x = 0; x < 20; ++x) rows += chance.chance(static_cast<float>(share)) || y == 5 ? '#' : '.';
      rows += "\",\n";
    }
    test.folder.write(
        "levels/long.level.toml",
        "tileset = \"soil\"\nletters = { \".\" = \"\", \"#\" = \"soil\" }\n[[layers]]\nname = \"ground\"\n"
        "rows = [\n" +
            rows +
            "]\n[[layers]]\nname = \"things\"\n[[paths]]\nname = \"round\"\npoints = [[8, 8], [150, 30]]\n");
  };
  write(0);
  vole::Stage& stage = test.start(test.folder);
  stage.load_level("long");
  std::vector<vole::Entity> things;
  for (int i = 0; i < 24; ++i) {
    const float x = chance.within(4, 150), y = chance.within(8, 40);
    things.push_back(stage.spawn(kinds[static_cast<std::size_t>(i) % kinds.size()], {x, y}));
  }
  for (const double share : {0.5, 1.0, 0.0, 0.3, 1.0, 0.0}) {
    write(share);
    vole::Report report;
    test.catalog->refresh(report);
    CHECK(report.problems().empty());
    for (int tick = 0; tick < 60; ++tick) {
      for (const vole::Entity thing : things)
        if (vole::Intent* const intent = stage.entities().find<vole::Intent>(thing)) {
          intent->direction.x = chance.within(-1, 1);
          intent->direction.y = chance.within(-1, 1);
          intent->jump_pressed = intent->jump_held = chance.chance(0.2f);
        }
      test.tick();
      for (const vole::Entity thing : things) {
        const Vec2 at = stage.get<vole::Pose>(thing).at;
        REQUIRE(std::isfinite(at.x));
        REQUIRE(std::isfinite(at.y));
        // It is not thrown out of the level either: at most as far as it moves by itself.
        REQUIRE(std::abs(at.x - 80) < 400);
        REQUIRE(std::abs(at.y - 24) < 400);
      }
    }
  }
  // In the open again, with nobody in a wall, all of them can move.
  for (const vole::Entity thing : things) {
    vole::Intent* const intent = stage.entities().find<vole::Intent>(thing);
    if (!intent) continue;
    const Vec2 before = stage.get<vole::Pose>(thing).at;
    intent->direction = {before.x < 80 ? 1.0f : -1.0f, 0};
    test.tick(20);
    intent->direction = {0, 0};
    CHECK(std::abs(stage.get<vole::Pose>(thing).at.x - before.x) > 4);
    stage.remove(thing);
    test.tick();
  }
}

TEST_CASE("the picture of a layer lies as far off its place as the layer says") {
  LevelStage test;
  test.folder.write_picture("assets/moon.png", {4, 4}, {200, 0, 0, 255});
  // The picture's top left among the canvas's pixels.
  const auto corner = [&](const std::string& keys) {
    test.load("[[layers]]\nname = \"far\"\npicture = \"moon\"\nrepeat = \"none\"\n" + keys);
    const vole::PictureItem item = test.drawn(1);
    return item.at - vole::Vec2(item.pivot);
  };
  const vole::Vec2 top = corner("edge = \"top\"\n");
  CHECK(corner("edge = \"top\"\noffset = [20, 5]\n") == top + vole::Vec2{20, 5});
  CHECK(corner("offset = [-3, -20]\n") == corner("offset = [0, -16]\n") + vole::Vec2{-3, -4});
}

TEST_CASE("layers are shown as their look says, which code may change and the state keeps") {
  LevelStage test;
  vole::Stage& stage = test.load("[[places]]\nkind = \"mouse\"\ncell = [1, 4]\n");
  stage.camera().canvas = {160, 48};
  stage.camera().jump_to({80, 24});
  const auto drawn = [&] {
    vole::DrawList list;
    list.start({160, 48});
    test.running->draw(list, 1);
    list.sort();
    vole::Image image({160, 48}, {0, 0, 0, 255});
    vole::Raster().draw(list, image);
    return image;
  };
  const vole::Colour soil{0x4a, 0x30, 0x26, 0xff}, brown{0x7a, 0x4a, 0x33, 0xff};
  CHECK(drawn().at(4, 44) == soil);
  CHECK(drawn().at(12, 36) == brown);
  const auto change = [&](std::string_view layer, const auto& how) {
    vole::LayerLook look = stage.level().look(layer);
    how(look);
    stage.level().set_look(layer, look);
  };
  const vole::StateBytes before = test.state();
  // Looking changes nothing, and what one look returned is not touched by another.
  const vole::LayerLook& ground = stage.level().look("ground");
  CHECK(stage.level().look("things").opacity == 1);
  CHECK(ground.tint == vole::white);
  CHECK(test.state() == before);
  change("ground", [](vole::LayerLook& look) { look.tint = {255, 0, 255, 255}; });
  CHECK(drawn().at(4, 44) == vole::Colour{0x4a, 0, 0x26, 0xff});
  change("things", [](vole::LayerLook& look) { look.opacity = 0.5f; });
  const vole::Colour half = drawn().at(12, 36);
  CHECK(half.r == Approx(0x7a / 2).margin(1));
  change("things", [](vole::LayerLook& look) { look.visible = false; });
  CHECK(drawn().at(12, 36) == vole::Colour{0, 0, 0, 255});
  // Not seen, but there.
  CHECK(stage.level().solid().solid(0, 5));
  CHECK(stage.count("mouse") == 1);
  vole::RunningScene again(*test.setting, test.game.steps(), test.game.scenes().get("cues"), {}, 1);
  const vole::StateBytes state = test.state();
  vole::StateReader in(state);
  again.read(in);
  again.bind();
  const vole::LevelNow& restored = again.stage().level();
  CHECK_FALSE(restored.look("things").visible);
  CHECK(restored.look("ground").tint == vole::Colour{255, 0, 255, 255});
  CHECK(restored.look("ground").opacity == 1);
  CHECK_THROWS_WITH(restored.look("grund"),
                    Contains("no layer \"grund\" in level \"long\"; did you mean \"ground\"?"));
  // As the file has it again: nothing is changed any more.
  stage.level().set_look("ground", {});
  stage.level().set_look("things", {});
  CHECK(test.state() == before);
}

TEST_CASE("a layer that is not solid is run through, whatever its tiles are") {
  LevelStage test;
  test.folder.write("levels/back.level.toml",
                    "tileset = \"soil\"\nletters = { \"#\" = \"soil\" }\n[[layers]]\nname = \"back\"\nsolid "
                    "= false\nrows = [\"###\"]\n"
                    "[[layers]]\nname = \"things\"\n");
  vole::Stage& stage = test.start(test.folder);
  stage.load_level("back");
  CHECK_FALSE(stage.solid().solid(1, 0));
  stage.level().put("things", {1, 0}, "soil");
  CHECK(stage.solid().solid(1, 0));
  stage.level().put("things", {1, 0}, "");
  stage.level().put("back", {1, 0}, "");
  stage.level().put("back", {1, 0}, "soil");
  CHECK_FALSE(stage.solid().solid(1, 0));
}

TEST_CASE("zones of any form notice who is in them, point by point") {
  LevelStage test;
  vole::Random chance(19);
  for (int round = 0; round < 150; ++round) {
    // A star: simple, and rarely convex.
    const int count = static_cast<int>(chance.below(9)) + 3;
    const Vec2 middle{80, 24};
    std::vector<Vec2> corners;
    std::string points;
    for (int i = 0; i < count; ++i) {
      const float turn =
          360.0f * (static_cast<float>(i) + chance.within(0, 0.6f)) / static_cast<float>(count);
      const float reach = chance.within(3, 60);
      corners.push_back({std::floor(middle.x + reach * std::cos(turn * 0.0174533f)),
                         std::floor(middle.y + reach * std::sin(turn * 0.0174533f))});
      points += fmt::format("[{}, {}], ", corners.back().x, corners.back().y);
    }
    const std::string text = "[[zones]]\nname = \"star\"\npoints = [" + points + "]\n";
    if (const std::string told = test.wrong(text); !told.empty()) {
      // Corners may come to lie on one another.
      REQUIRE_THAT(told, Contains("polygon"));
      continue;
    }
    vole::Stage& stage = test.load(text);
    const vole::LevelZone& zone = stage.zone("star");
    const vole::CollisionWorld& bodies = stage.bodies();
    vole::Entity thing;
    stage.entities().visit<vole::Zone>([&](vole::Entity entity, const vole::Zone&) { thing = entity; });
    for (int i = 0; i < 200; ++i) {
      const Vec2 point{std::floor(chance.within(10, 150)) + 0.37f,
                       std::floor(chance.within(-40, 90)) + 0.61f};
      // Too near the border, a corner that went to a quarter of a pixel may matter.
      bool near = false;
      for (int side = 0; side < count; ++side) {
        const Vec2 a = corners[static_cast<std::size_t>(side)],
                   way = corners[static_cast<std::size_t>((side + 1) % count)] - a, to = point - a;
        const float square = way.x * way.x + way.y * way.y;
        const float share = std::clamp((to.x * way.x + to.y * way.y) / square, 0.0f, 1.0f);
        near = near || length_of(to - way * share) < 0.05f;
      }
      if (near) continue;
      std::vector<vole::BodyOrCell> found;
      bodies.find(point, {.tiles = false}, found);
      const bool noticed = std::any_of(found.begin(), found.end(),
                                       [&](const auto& each) { return stage.thing(each.body) == thing; });
      CAPTURE(text, point.x, point.y);
      REQUIRE(noticed == zone.contains(point));
    }
  }
  CHECK_THAT(test.wrong("[[zones]]\nname = \"a\"\npoints = [[0, 0], [8, 8], [8, 0], [0, 8]]\n"),
             Contains("the sides of this polygon touch or cross each other"));
  CHECK_THAT(test.wrong("[[zones]]\nname = \"a\"\npoints = [[0, 0], [8, 8]]\n"),
             Contains("a polygon has 3 to 1,000 corners"));
  CHECK_THAT(test.wrong("[[zones]]\nname = \"a\"\npoints = [[0, 0], [8, 8], [16, 16]]\n"),
             Contains("polygon"));
  CHECK_THAT(test.wrong("[[zones]]\nname = \"a\"\n"),
             Contains("zone \"a\" has an \"area\", or else \"points\""));
}

TEST_CASE("a path is gone along evenly, and what is nearest on it is found") {
  vole::Random chance(3);
  for (int round = 0; round < 200; ++round) {
    std::vector<Vec2> points{{0, 0}};
    for (std::uint32_t i = chance.below(6) + 1; i > 0; --i)
      points.push_back(points.back() + Vec2{chance.within(4, 60), chance.within(-60, 60)});
    const bool closed = chance.chance(0.5f), curved = chance.chance(0.5f);
    const vole::LevelPath path("p", points, closed, curved);
    // Smooth or not, it goes through all points.
    for (const Vec2 point : points) {
      const Vec2 there = path.at(path.nearest(point));
      REQUIRE(length_of(there - point) < 0.01f);
    }
    // So many pixels further are so many pixels of the way: measured in small steps.
    float length = 0;
    constexpr int steps = 4000;
    Vec2 last = path.at(0);
    for (int i = 1; i <= steps; ++i) {
      const float along = path.length() * static_cast<float>(i) / steps;
      const Vec2 now = closed && i == steps ? path.at(0) : path.at(along);
      const float step = length_of(now - last);
      REQUIRE(step <= path.length() / steps * 1.01f + 0.001f);
      length += step;
      last = now;
    }
    REQUIRE(length == Approx(path.length()).epsilon(0.01));
    REQUIRE(length_of(path.direction(chance.within(-50, 500))) == Approx(1).epsilon(0.001));
    // No spot of it is nearer than the nearest.
    const Vec2 from{chance.within(-50, 200), chance.within(-100, 100)};
    const float nearest = length_of(path.at(path.nearest(from)) - from);
    for (int i = 0; i <= 500; ++i)
      REQUIRE(length_of(path.at(path.length() * static_cast<float>(i) / 500) - from) >= nearest - 0.01f);
    if (closed) REQUIRE(length_of(path.at(path.length() * 3 + 5) - path.at(5)) < 0.05f);
    if (!closed) REQUIRE(path.at(path.length() + 100) == path.at(path.length()));
    REQUIRE(std::isfinite(path.at(NAN).x));
  }
}

TEST_CASE("a thing goes along a path of the level") {
  LevelStage test;
  const std::string ring = "[[paths]]\nname = \"ring\"\ncells = [[2, 1], [6, 1], [6, 3]]\nclosed = true\n";
  vole::Stage& stage =
      test.load(ring + place("at = [36, 10]\nname = \"cart\"\nalong_path = { path = \"ring\", speed = 60 }"));
  CHECK(stage.path("ring").at(0) == Vec2{20, 12});
  const vole::Entity cart = stage.named("cart");
  float furthest = 0;
  for (int i = 0; i < 400; ++i) {
    test.tick();
    const Vec2 at = stage.get<vole::Pose>(cart).at;
    const float off = length_of(stage.path("ring").at(stage.path("ring").nearest(at)) - at);
    if (i > 20) REQUIRE(off < 0.01f);  // it has come to the path, and stays on it
    furthest = std::max(furthest, at.y);
  }
  CHECK(furthest > 27.5f);
  CHECK_THAT(error_of([&] { test.load(place("cell = [1, 1]\nalong_path = { path = \"rung\" }") + ring); },
                      test.folder),
             Contains("error: no path \"rung\" in level \"long\"; did you mean \"ring\"?"));
  CHECK_THAT(error_of([&] { test.load(place("cell = [1, 1]\nalong_path = {}")); }, test.folder),
             Contains("has either \"points\" or a \"path\" of the level"));
  CHECK_THAT(test.wrong("[[paths]]\nname = \"a\"\npoints = [[1, 1]]\n"),
             Contains("17:10: error: path \"a\" has 1 point; a path has two or more"));
  CHECK_THAT(test.wrong("[[paths]]\nname = \"a\"\npoints = [[1, 1], [1, 1]]\n"),
             Contains("path \"a\" has 2 points, all on one spot"));
  CHECK_THAT(test.wrong("[[paths]]\nname = \"a\"\n"),
             Contains("path \"a\" has either \"points\" or \"cells\""));
}

TEST_CASE(
    "a zone that a cue is about is in some level, and a scene without a level has a colour of its own") {
  LevelStage test;
  test.level("[[zones]]\nname = \"end\"\narea = [8, 8, 8, 8]\n");
  const auto meets = [](const char* name) {
    CueScene::say = [name](vole::Cues& cues) {
      cues.when_meet("mouse", vole::zone(name), [](vole::Stage&, vole::Entity, vole::Entity) {});
    };
  };
  meets("edn");
  CHECK_THAT(error_of([&] { test.start(test.folder); }, test.folder),
             Contains("no level has a zone \"edn\", which a cue is about; did you mean \"end\"?"));
  meets("end");
  vole::Stage& stage = test.start(test.folder);
  CHECK(test.running->sky() == vole::Colour{0, 0, 0, 255});
  stage.set_background({20, 24, 46, 255});
  CHECK(test.running->sky() == vole::Colour{20, 24, 46, 255});
  stage.load_level("long");
  CHECK(test.running->sky() == stage.level().file().sky);
}

TEST_CASE("things are scattered by a seed, on what they should stand on, and a change elsewhere moves none") {
  LevelStage test;
  const auto scatter = [](const std::string& its) {
    return "[[scattered]]\nkind = \"crumb\"\n" + its + "\n";
  };
  const auto spots = [&](const std::string& more) {
    test.level(more);
    vole::Catalog catalog(test.folder.path());
    std::vector<std::pair<float, float>> all;
    for (const vole::LevelPlace& each : catalog.get<vole::Level>("long")->places)
      all.emplace_back(each.at.x, each.at.y);
    std::sort(all.begin(), all.end());
    return all;
  };
  const std::string zone = "[[zones]]\nname = \"bed\"\narea = [40, 0, 80, 48]\n";
  const auto on_soil = spots(scatter("count = 5\nzone = \"bed\"\non = [\"soil\"]\nseed = 4") + zone);
  REQUIRE(on_soil.size() == 5);
  for (const auto& [x, y] : on_soil) {
    CHECK(y == 40);  // on top of the floor
    CHECK((x >= 40 && x < 120 && std::fmod(x, 8.0f) == 4));
  }
  CHECK(spots(scatter("count = 5\nzone = \"bed\"\non = [\"soil\"]\nseed = 4") + zone) == on_soil);
  CHECK(spots(scatter("count = 5\nzone = \"bed\"\non = [\"soil\"]\nseed = 5") + zone) != on_soil);
  // With one more of them the others stay.
  const auto one_more = spots(scatter("count = 6\nzone = \"bed\"\non = [\"soil\"]\nseed = 4") + zone);
  CHECK(std::includes(one_more.begin(), one_more.end(), on_soil.begin(), on_soil.end()));
  // Apart from each other; anywhere; and told where there is no room.
  const auto apart = spots(scatter("count = 3\nzone = \"bed\"\non = [\"soil\"]\napart = 20") + zone);
  REQUIRE(apart.size() == 3);
  CHECK(apart[1].first - apart[0].first >= 20);
  CHECK(apart[2].first - apart[1].first >= 20);
  for (const auto& [x, y] : spots(scatter("count = 40\nzone = \"bed\"") + zone))
    CHECK((x >= 40 && x < 120 && y >= 0 && y < 48));
  CHECK_THAT(test.wrong(scatter("count = 11\nzone = \"bed\"\non = [\"soil\"]") + zone),
             Contains("there is room for 10 of the 11 \"crumb\" that are to be scattered"));
  // Many: each against each.
  const auto many = spots(scatter("count = 60\napart = 6"));
  REQUIRE(many.size() == 60);
  for (std::size_t i = 0; i < many.size(); ++i)
    for (std::size_t j = 0; j < i; ++j)
      CHECK(std::hypot(many[i].first - many[j].first, many[i].second - many[j].second) >= 6);
  CHECK_THAT(test.wrong(scatter("count = 10000") + scatter("count = 9999\nseed = 2") +
                        scatter("count = 10000\nseed = 3") + scatter("count = 10000\nseed = 4") +
                        scatter("count = 10000\nseed = 5") + scatter("count = 10000\nseed = 6") +
                        scatter("count = 10000\nseed = 7")),
             Contains("with these 10000 the level has more than 65536 things"));
  CHECK_THAT(test.wrong(scatter("zone = \"bad\"") + zone),
             Contains("no zone \"bad\" in level \"long\"; did you mean \"bed\"?"));
  CHECK_THAT(test.wrong(scatter("on = [\"sol\"]")), Contains("no tile \"sol\""));
  CHECK_THAT(test.wrong("[[scattered]]\ncount = 2\n"), Contains("\"kind\" is missing here"));
  // They come to life as what is placed does.
  vole::Stage& stage = test.load(scatter("count = 7\nzone = \"bed\"\nbody = { size = [3, 3] }") + zone);
  CHECK(stage.count("crumb") == 7);
  CHECK(stage.get<vole::Body>(stage.first("crumb")).size == Vec2{3, 3});
}

TEST_CASE("every spot of the largest level is exact to a part of a pixel, and beyond none is promised") {
  const float end = vole::longest_level;
  for (const float at : {0.0f, end / 2, end - 1, end - 1 / 256.0f})
    CHECK(vole::to_pixels(vole::to_subpixels(at)) == at);
  CHECK(end - 1 / 256.0f != end);
  CHECK(end + 1 / 256.0f == end);
}

TEST_CASE("what is asked of a level without one loaded is an error, and ends nothing") {
  LevelStage test;
  vole::Stage& stage = test.start(test.folder);
  vole::LevelNow& level = stage.level();
  const std::string none = "no level is loaded";
  CHECK_FALSE(stage.has_level());
  CHECK_FALSE(level.endless());
  CHECK_THROWS_WITH(level.put("ground", {0, 0}, "soil"), Contains(none));
  CHECK_THROWS_WITH(level.tile("ground", {0, 0}), Contains(none));
  CHECK_THROWS_WITH(level.material("ground", {0, 0}), Contains(none));
  CHECK_THROWS_WITH(level.look("ground"), Contains(none));
  CHECK_THROWS_WITH(level.set_look("ground", {}), Contains(none));
  CHECK_THROWS_WITH(level.darkness(), Contains(none));
  CHECK_THROWS_WITH(level.darken(0.5f), Contains(none));
  CHECK_THROWS_WITH(level.friction({0, 0}), Contains(none));
  CHECK_THROWS_WITH(level.friction_of_floor({0, 0}), Contains(none));
  CHECK_THROWS_WITH(level.find<Pond>("ground", {0, 0}), Contains(none));
  CHECK_THROWS_WITH(level.find_anywhere<Pond>({0, 0}), Contains(none));
  CHECK_THROWS_WITH(level.has_tag("ground", {0, 0}, "wet"), Contains(none));
  CHECK_THROWS_WITH(level.cell_at({0, 0}), Contains(none));
  CHECK_THROWS_WITH(level.size(), Contains(none));
  CHECK_THROWS_WITH(level.file(), Contains(none));
  CHECK_THROWS_WITH(level.solid(), Contains(none));
  CHECK_THROWS_WITH(level.zone("bed"), Contains(none));
  CHECK_THROWS_WITH(level.path("round"), Contains(none));
  CHECK_THROWS_WITH(level.places(), Contains(none));
  CHECK_THROWS_WITH(level.piece_files(), Contains(none));
  test.tick();
}

TEST_CASE("darkness and opacity are brought within 0 to 1, and what is no number is an error") {
  LevelStage test;
  vole::LevelNow& level = test.load("").level();
  for (const float beyond : {1.01f, 1.1f, 1e30f, std::numeric_limits<float>::infinity()}) {
    level.darken(beyond);
    CHECK(level.darkness() == 1);
    level.darken(-beyond);
    CHECK(level.darkness() == 0);
    level.set_look("ground", {.opacity = beyond});
    CHECK(level.look("ground").opacity == 1);
    level.set_look("ground", {.opacity = -beyond});
    CHECK(level.look("ground").opacity == 0);
  }
  level.darken(0.25f);
  const float none = std::numeric_limits<float>::quiet_NaN();
  CHECK_THROWS_WITH(level.darken(none), Contains("NaN"));
  CHECK_THROWS_WITH(level.set_look("ground", {.opacity = none}), Contains("NaN"));
  CHECK(level.darkness() == 0.25f);
}

TEST_CASE("cells that are dug in any order come to the same state, and each counts once") {
  const auto dug = [](bool shuffled) {
    LevelStage test;
    vole::Stage& stage = test.load("");
    std::vector<IVec2> cells;
    for (int y = 0; y < 6; ++y)
      for (int x = 0; x < 20; ++x) cells.push_back({x, y});
    vole::Random chance(5);
    if (shuffled)
      for (std::size_t i = cells.size(); i > 1; --i)
        std::swap(cells[i - 1], cells[chance.below(static_cast<std::uint32_t>(i))]);
    for (const IVec2 cell : cells) stage.level().put("ground", cell, cell.y < 3 ? "soil" : "grass");
    for (const IVec2 cell : cells) stage.level().put("ground", cell, cell.x % 2 == 0 ? "" : "grass");
    // What the file says is no change: rows of nothing above the floor.
    std::size_t differ = 0;
    for (const IVec2 cell : cells) differ += cell.x % 2 == 1 || cell.y == 5 ? 1 : 0;
    CHECK(stage.level().changed().size() == differ);
    return test.state();
  };
  CHECK(dug(true) == dug(false));
}

TEST_CASE("what comes along into another level is in the layer of its name there, also after a restore") {
  LevelStage test;
  test.folder.write("levels/deep.level.toml",
                    "cells = [20, 6]\ntileset = \"soil\"\n[[layers]]\nname = \"sky\"\n[[layers]]\nname = "
                    "\"things\"\n[[layers]]\nname = \"front\"\n");
  test.folder.write("levels/bare.level.toml",
                    "cells = [20, 6]\ntileset = \"soil\"\n[[layers]]\nname = \"only\"\n");
  vole::Stage& stage = test.load("");
  const vole::Entity mouse = stage.spawn("mouse", {8, 40});
  const auto layer = [&] { return stage.get<vole::Sprite>(mouse).links.layer; };
  const auto restored = [&] {
    vole::RunningScene again(*test.setting, test.game.steps(), test.game.scenes().get("cues"), {}, 1);
    const vole::StateBytes state = test.state();
    vole::StateReader in(state);
    again.read(in);
    again.bind();
    return again.stage().get<vole::Sprite>(mouse).links.layer;
  };
  CHECK(layer() == stage.level().layer("things"));
  stage.load_level("deep");
  CHECK(layer() == stage.level().layer("things"));
  CHECK(restored() == layer());
  // To the front, where there is none of this name.
  stage.load_level("bare");
  CHECK(layer() == 0);
  CHECK(restored() == layer());
  test.tick();
}

TEST_CASE("no two states of cells have the same number, in whichever level") {
  LevelStage test;
  vole::Stage& stage = test.load("");
  std::set<std::uint64_t> seen{stage.level().changes()};
  for (int i = 0; i < 5; ++i) {
    stage.load_level("long");
    CHECK(seen.insert(stage.level().changes()).second);
    stage.level().put("ground", {i, 0}, "soil");
    CHECK(seen.insert(stage.level().changes()).second);
  }
}

TEST_CASE("levels have the same in them exactly where their contents have the same number") {
  LevelStage test;
  vole::Stage& stage = test.load("");
  vole::Random chance(8);
  std::map<std::uint64_t, std::string> seen;
  std::set<std::string> all;
  const auto text_of = [&] {
    std::string text;
    for (const vole::ChangedCell& each : stage.level().changed()) text += vole::to_inline_toml(each);
    return text;
  };
  for (int i = 0; i < cases(2000); ++i) {
    vole::LevelNow& level = stage.level();
    constexpr const char* tiles[] = {"soil", "grass", ""};
    level.put("ground", {static_cast<int>(chance.below(3)), 1}, tiles[chance.below(3)]);
    if (chance.chance(0.05f)) level.bind(test.setting->binding());  // as a restore does
    const auto [at, is_new] = seen.emplace(level.contents(), text_of());
    REQUIRE(at->second == text_of());
    all.insert(text_of());
    REQUIRE(all.size() == seen.size());
  }
  CHECK(seen.size() > 20);
  const std::uint64_t before = stage.level().contents();
  stage.load_level("long");
  CHECK(stage.level().contents() != before);
}

TEST_CASE("what two tilesets say alike at the same place of their files is reported for each") {
  TestStage test;
  TempFolder folder;
  write_small_game(folder);
  const std::string level = vole::read_text(folder.path("levels/patch.level.toml"), 1 << 20);
  const std::size_t at = level.find("tileset = \"soil\"");
  REQUIRE(at != std::string::npos);
  folder.write("levels/patch.level.toml",
               level.substr(0, at) + "tileset = [\"soil\", \"clay\"]" + level.substr(at + 16));
  const auto write = [&](const std::string& name, const std::string& more) {
    folder.write("assets/" + name + ".tileset.toml",
                 "frame = { size = [8, 8] }\n[tiles." + name + "]\ncell = [0, 0]\nbodi = {}\n" + more);
  };
  write("soil", "[tiles.grass]\ncell = [1, 0]\n");
  write("clay", "");
  folder.write_picture("assets/clay.png", {16, 8});
  const std::string wrong = error_of([&] { test.start(folder).load_level("patch"); }, folder);
  for (const std::string name : {"soil", "clay"}) {
    CAPTURE(wrong, name);
    CHECK(wrong.find(name + ".tileset.toml:4:1: error: no component \"bodi\"") != std::string::npos);
  }
}

TEST_CASE("to put what is there already is no change, also after another tile was there") {
  TestStage test;
  TempFolder folder;
  write_small_game(folder);
  vole::Stage& stage = test.start(folder);
  stage.load_level("patch");
  vole::LevelNow& level = stage.level();
  const auto changes_by = [&](const char* tile) {
    const std::uint64_t before = level.changes();
    level.put("ground", {2, 1}, tile);
    return level.changes() != before;
  };
  CHECK_FALSE(changes_by(""));
  for (const char* tile : {"soil", "grass", "soil", ""}) {
    CHECK(changes_by(tile));
    CHECK_FALSE(changes_by(tile));
  }
}
