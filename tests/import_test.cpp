// Levels made of pictures and CSV that were drawn elsewhere.
#include <fmt/core.h>

#include <map>

#include "support.hpp"
#include "vole/asset/image.hpp"
#include "vole/level/level.hpp"

namespace {

using vole::IVec2;

const std::string table =
    "tileset = \"soil\"\n[colours]\n\"#4a3026\" = \"soil\"\n\"#6d8a3f\" = \"grass\"\n\"#000000\" = \"\"\n"
    "\"#ff0000\" = { kind = \"crumb\", tile = \"grass\" }\n\"#00ff0080\" = \"soil, mirrored\"\n"
    "[numbers]\n0 = \"\"\n7 = \"soil\"\n8 = \"grass\"\n9 = { kind = \"crumb\", tile = \"grass\" }\n12 = "
    "\"soil, mirrored\"\n";

struct Drawn {
  vole::Colour colour;
  const char* number;
  const char* tile;
};
const std::array<Drawn, 5> all{{{{0x4a, 0x30, 0x26, 0xff}, "7", "soil"},
                                {{0x6d, 0x8a, 0x3f, 0xff}, "8", "grass"},
                                {{0, 0, 0, 0xff}, "0", ""},
                                {{0xff, 0, 0, 0xff}, "9", "grass"},
                                {{0, 0xff, 0, 0x80}, "12", "soil, mirrored"}}};

}  // namespace

TEST_CASE("a picture and CSV become the level that they draw") {
  vole::Random chance(12);
  for (const int width : {9, 500}) {  // the second becomes CSV
    TempFolder folder;
    write_small_game(folder);
    folder.write("table.toml", table);
    const IVec2 size{width, 7};
    vole::Image image(size);
    std::string csv;
    std::map<std::pair<int, int>, std::uint32_t> wanted;
    int crumbs = 0;
    for (int y = 0; y < size.y; ++y)
      for (int x = 0; x < size.x; ++x) {
        const std::uint32_t what = chance.below(5);
        wanted[{x, y}] = what;
        crumbs += what == 3;
        image.at(x, y) = all[what].colour;
        csv += all[what].number;
        csv += x + 1 < size.x ? "," : "\n";
      }
    vole::write_png(folder.path("ground.png"), image);
    folder.write("ground.csv", csv);
    for (const std::string file : {"ground.png", "ground.csv"}) {
      const std::string name = file.ends_with("png") ? "drawn" : "counted";
      const Ran ran = vole_in(
          folder, fmt::format("level import {} --table table.toml -o levels/{}.level.toml", file, name));
      REQUIRE(ran.code == 0);
      CHECK(ran.output == fmt::format("levels/{}.level.toml\n", name));
      vole::Catalog catalog(folder.path());
      const auto level = catalog.get<vole::Level>(name);
      REQUIRE(level->cells == size);
      CHECK(level->layers[0].name == "ground");
      CHECK(level->places.size() == static_cast<std::size_t>(crumbs));
      for (const auto& [at, what] : wanted)
        REQUIRE(vole::TileCell::from(level->layers[0].tiles.at(at.first, at.second)) ==
                level->tiles.paint(all[what].tile).cell);
      for (const vole::LevelPlace& place : level->places)
        REQUIRE(wanted.at({static_cast<int>(place.at.x) / 8, static_cast<int>(place.at.y) / 8 - 1}) == 3);
    }
    for (const std::string name : {"drawn", "counted"}) {
      const std::string file = fmt::format("levels/{}.level.toml", name);
      folder.write(file, vole::read_text(folder.path(file), 1 << 20) +
                             "\n[check]\nallow = { nobody-steers = \"a drawing\" }\n");
    }
    const Ran checked = vole_in(folder, "check");
    CAPTURE(checked.output);
    CHECK(checked.code == 0);
  }
}

TEST_CASE("an import tells what it could not place, and tramples nothing") {
  TempFolder folder;
  write_small_game(folder);
  folder.write("table.toml", table);
  folder.write("a.csv", "7,8\n31,x\n");
  folder.write("b.csv", "0,0\n31,9\n");
  const auto import = [&](const std::string& words) {
    const Ran ran = vole_in(folder, "level import " + words);
    return fmt::format("{} {}", ran.code, ran.output);
  };
  CHECK(import("a.csv b.csv --table table.toml -o levels/new.level.toml") ==
        "1 a.csv:2:1: warning: \"31\" stands for nothing in the table; its cells are empty (2 times)\n"
        "a.csv:2:4: warning: \"x\" stands for nothing in the table; its cells are "
        "empty\nlevels/new.level.toml\n");
  vole::Catalog catalog(folder.path());
  const auto level = catalog.get<vole::Level>("new");
  CHECK(level->layers.size() == 3);
  CHECK(level->places.at(0).at == vole::Vec2{12, 16});
  const std::string before = vole::read_text(folder.path("levels/new.level.toml"), 10000);
  CHECK(import("a.csv --table table.toml -o levels/new.level.toml") ==
        "1 levels/new.level.toml: error: is there already, and is not replaced; remove it first, or write to "
        "another name\n");
  CHECK(vole::read_text(folder.path("levels/new.level.toml"), 10000) == before);
  CHECK_THAT(import("a.csv --table table.toml -o assets/new.level.toml"),
             Catch::Contains("is no place for a level"));
  CHECK_THAT(import("a.csv --table table.toml -o new.toml"), Catch::Contains("is no place for a level"));
  CHECK_THAT(import("a.csv --table none.toml -o levels/c.level.toml"),
             Catch::Contains("none.toml: error: no such file"));
  CHECK_THAT(import("table.toml --table table.toml -o levels/c.level.toml"),
             Catch::Contains("is neither a PNG nor CSV"));
  CHECK_THAT(import("a.csv a.csv --table table.toml -o levels/c.level.toml"),
             Catch::Contains("two files would make the layer \"a\""));
  // Of very many, some and their number.
  std::string strange;
  for (int i = 0; i < 500; ++i) strange += (i == 0 ? "" : ",") + std::to_string(1000 + i);
  folder.write("strange.csv", strange + "\n");
  const std::string flood = import("strange.csv --table table.toml -o levels/strange.level.toml");
  CHECK(std::count(flood.begin(), flood.end(), '\n') == 42);
  CHECK_THAT(flood, Catch::Contains("and 460 more stand for nothing in the table\n"));
  folder.write("b.csv", "0,0,0\n");
  CHECK_THAT(import("a.csv b.csv --table table.toml -o levels/c.level.toml"),
             Catch::Contains("b.csv: error: has 3 x 1 cells, and \"a\" 2 x 2"));
  folder.write("b.csv", "0,0\n0\n");
  CHECK_THAT(import("b.csv --table table.toml -o levels/c.level.toml"),
             Catch::Contains("b.csv:2:1: error: this row has 1 fields, but the first has 2"));
  folder.write("table.toml",
               "tileset = \"soil\"\n[colours]\n\"#12\" = \"soil\"\n[numbers]\n1 = \"sol\"\n2 = { kind = "
               "\"crum\" }\n3 = { tile = \"soil\" }\n");
  const std::string wrong = import("a.csv --table table.toml -o levels/c.level.toml");
  for (const char* each : {"table.toml:7:5: error: \"kind\" is missing here"})
    CHECK_THAT(wrong, Catch::Contains(each));
  folder.write(
      "table.toml",
      "tileset = \"soil\"\n[colours]\n\"#12\" = \"soil\"\n[numbers]\n1 = \"sol\"\n2 = { kind = \"crum\" }\n");
  CHECK(import("a.csv --table table.toml -o levels/c.level.toml") ==
        "1 table.toml:3:1: error: \"#12\" is no colour; write it like \"#3f5a36\"\n"
        "table.toml:5:5: error: no tile \"sol\" in tileset \"soil\"; did you mean \"soil\"?\n"
        "table.toml:6:14: error: no kind \"crum\"; did you mean \"crumb\"?\n");
  CHECK_FALSE(vole::file_exists(folder.path("levels/c.level.toml")));
  CHECK_THAT(import("--table table.toml -o levels/c.level.toml"), Catch::Contains("FILE is required"));
}
