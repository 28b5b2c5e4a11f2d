// Sheets, fonts, tilesets, levels and kinds: what they hold, and what is said when they are wrong.
#include "support.hpp"
#include "vole/animation/playhead.hpp"
#include "vole/asset/font.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/level/kinds.hpp"
#include "vole/level/level.hpp"

namespace {

template <class T>
std::string loading(const TempFolder& folder, const std::string& name) {
  return error_of(
      [&] {
        vole::Catalog catalog(folder.path());
        catalog.get<T>(name);
      },
      folder);
}

// What is said of a file of the small game after one piece of its text is replaced.
template <class T>
std::string with_change(const std::string& name, const std::string& file, const std::string& what,
                        const std::string& by) {
  TempFolder folder;
  write_small_game(folder);
  std::string text = vole::read_text(folder.path(file), 100000);
  const std::size_t at = text.find(what);
  REQUIRE(at != std::string::npos);
  folder.write(file, text.replace(at, what.size(), by));
  return loading<T>(folder, name);
}

std::string sheet_with(const std::string& what, const std::string& by) {
  return with_change<vole::Sheet>("mouse", "assets/mouse.sheet.toml", what, by);
}
std::string tileset_with(const std::string& what, const std::string& by) {
  return with_change<vole::Tileset>("soil", "assets/soil.tileset.toml", what, by);
}
std::string level_with(const std::string& what, const std::string& by) {
  return with_change<vole::Level>("patch", "levels/patch.level.toml", what, by);
}

}  // namespace

TEST_CASE("a sheet is cut into frames, with margin and spacing") {
  TempFolder folder;
  folder.write_picture("assets/a.png", {2 + 3 * 5 + 2 * 1 + 2, 2 + 2 * 4 + 1 + 2});
  folder.write("assets/a.sheet.toml", "frame = { size = [5, 4], margin = 2, spacing = 1 }\npivot = [1, 3]\n");
  vole::Catalog catalog(folder.path());
  const auto sheet = catalog.get<vole::Sheet>("a");
  REQUIRE(sheet->frames.size() == 6);
  CHECK(sheet->frames[0].area == vole::IRect{{2, 2}, {5, 4}});
  CHECK(sheet->frames[5].area == vole::IRect{{2 + 12, 2 + 5}, {5, 4}});
  CHECK(sheet->frames[5].pivot == vole::IVec2{1, 3});
  CHECK(catalog.get<vole::Picture>("a").shared() == sheet->pictures[0]);  // loaded once and shared
}

TEST_CASE("a picture alone serves as a sheet of one frame with its pivot at its feet") {
  TempFolder folder;
  folder.write_picture("assets/far/tree.png", {12, 20});
  vole::Catalog catalog(folder.path());
  const auto tree = catalog.get<vole::Sheet>("far/tree");
  CHECK(tree->frames.size() == 1);
  CHECK(tree->frames[0].pivot == vole::IVec2{6, 20});
  CHECK(catalog.names<vole::Sheet>() == std::vector<std::string>{"far/tree"});
}

TEST_CASE("what is wrong with a sheet is reported at its place") {
  CHECK(sheet_with("[8, 8]", "[7, 8]") ==
        "assets/mouse.sheet.toml:1:9: error: frames of 7 pixels wide (margin 0, spacing 0) do not fill "
        "\"mouse\", which is 32 wide; or allow = { uneven-frames = \"why\" } under [check]");
  CHECK(sheet_with("[3]", "[8]") ==
        "assets/mouse.sheet.toml:9:11: error: clip \"idle\" names frame 8, but \"mouse\" has 8 frames; the "
        "last is 7");
  CHECK(sheet_with("[3]", "[-1]").find("names frame -1") != std::string::npos);
  CHECK(sheet_with("[3]", "[]") == "assets/mouse.sheet.toml:8:8: error: clip \"idle\" has no frames");
  CHECK(sheet_with("fps = 12", "fps = 0") ==
        "assets/mouse.sheet.toml:6:7: error: 0 is too small; the least is 0.001");
  CHECK(sheet_with("fps", "speed").find("assets/mouse.sheet.toml:6:1: error: unknown key \"speed\"") == 0);
  CHECK(sheet_with("\"bottom\"", "\"botom\"") ==
        "assets/mouse.sheet.toml:2:9: error: unknown word \"botom\"; did you mean \"bottom\"?");
  CHECK(sheet_with("frame =", "picture = \"mose.png\"\nframe =") ==
        "assets/mouse.sheet.toml:1:11: error: no picture \"mose\"; did you mean \"mouse\"?");
  TempFolder folder;
  write_small_game(folder);
  CHECK(loading<vole::Sheet>(folder, "mose") == "error: no sheet \"mose\"; did you mean \"mouse\"?");
  CHECK(loading<vole::Sheet>(folder, "../game").find("error: no sheet") == 0);
  folder.write("assets/mouse.png", "not a picture");
  CHECK(loading<vole::Sheet>(folder, "mouse") == "assets/mouse.png: error: is not a PNG picture");
}

TEST_CASE("a clip shows each frame for its exact time, and never drifts") {
  vole::Clip clip{.name = "run", .frames = {0, 1, 2, 3}, .millifps = 12'000};
  for (std::int64_t tick = 0; tick < 200; ++tick) REQUIRE(clip.frame_at(tick, 60) == tick / 5 % 4);
  const std::int64_t ten_hours = std::int64_t{60} * 60 * 60 * 10;
  CHECK(clip.frame_at(ten_hours, 60) == ten_hours * 12 / 60 % 4);
  // Rates that do not divide share the remainder evenly: no frame is ever more than a tick longer than
  // another.
  clip.millifps = 7'000;
  int shortest = 1000, longest = 0, run = 1;
  for (std::int64_t tick = 1; tick < 6000; ++tick) {
    if (clip.frame_at(tick, 60) == clip.frame_at(tick - 1, 60)) {
      ++run;
      continue;
    }
    shortest = std::min(shortest, run);
    longest = std::max(longest, run);
    run = 1;
  }
  CHECK(shortest == 8);
  CHECK(longest == 9);
}

TEST_CASE("an playhead goes on with the clip it plays and starts another from the front") {
  const vole::Clip run{.name = "run", .frames = {5, 6}, .millifps = 30'000};
  const vole::Clip land{.name = "land", .frames = {9, 8}, .millifps = 30'000, .loop = false};
  vole::Playhead playhead;
  CHECK(playhead.frame(60) == 0);
  for (int tick = 0; tick < 3; ++tick) {
    playhead.play(run);
    playhead.tick();
  }
  CHECK(playhead.ticks() == 3);
  CHECK(playhead.frame(60) == 6);
  playhead.play(land);
  CHECK(playhead.frame(60) == 9);
  for (int tick = 0; tick < 4; ++tick) {
    CHECK_FALSE(playhead.finished(60));
    playhead.tick();
  }
  CHECK(playhead.finished(60));
  CHECK(playhead.frame(60) == 8);
}

TEST_CASE("a font measures its letters by their ink") {
  TempFolder folder;
  vole::Image image({12, 5});
  for (int y = 0; y < 5; ++y) image.at(1, y) = vole::white;   // a narrow i
  for (int x = 6; x < 11; ++x) image.at(x, 2) = vole::white;  // a wide dash
  vole::write_png(folder.path("assets/f.png"), image);
  folder.write("assets/f.sheet.toml",
               "frame = { size = [6, 5] }\n[font]\nglyphs = [\"i-\"]\ngap = 2\nspace = 3\n");
  folder.write_picture("assets/plain.png", {4, 4});
  folder.write("assets/plain.sheet.toml", "pivot = \"top\"\n");
  vole::Catalog catalog(folder.path());
  const auto font = catalog.get<vole::Font>("f");
  CHECK(font->measure("i") == vole::IVec2{1, 5});
  CHECK(font->measure("i-") == vole::IVec2{1 + 2 + 5, 5});
  CHECK(font->measure("i i\n--") == vole::IVec2{12, 10});
  CHECK(font->glyph(U'I') == font->glyph(U'i'));
  CHECK(font->glyph(U'x') == nullptr);
  CHECK(loading<vole::Font>(folder, "plain") ==
        "assets/plain.sheet.toml: error: \"plain\" is not a font: it has no [font] table");
  CHECK(vole::plain_font().measure("Vole").x > 10);
}

TEST_CASE("UTF-8 is taken letter by letter, and broken bytes never stall it") {
  std::string_view text = "a\u00e9\u20ac\U0001f400";
  for (const char32_t wanted : {U'a', U'\u00e9', U'\u20ac', U'\U0001f400'})
    CHECK(vole::next_letter(text) == wanted);
  CHECK(text.empty());
  vole::Random chance(3);
  for (int i = 0; i < 2000; ++i) {
    std::string bytes;
    for (std::uint32_t n = chance.below(12); n > 0; --n) bytes += static_cast<char>(chance.next());
    std::string_view rest = bytes;
    while (!rest.empty()) {
      const std::size_t before = rest.size();
      const char32_t letter = vole::next_letter(rest);
      REQUIRE(rest.size() < before);
      REQUIRE(letter <= 0x10ffff);
    }
  }
}

TEST_CASE("what is wrong with a tileset is reported at its place") {
  CHECK(tileset_with("[1, 0]", "[2, 0]") ==
        "assets/soil.tileset.toml:8:8: error: tile \"grass\" is at column 2, row 0, but the picture has 2 "
        "columns and 1 rows; they are counted from 0");
  CHECK(tileset_with("solid", "sold").find("unknown key \"sold\"; did you mean \"solid\"?") !=
        std::string::npos);
  CHECK(tileset_with("frame = { size = [8, 8] }", "").find("either a \"frame\"") != std::string::npos);
}

TEST_CASE("a level knows its layers, places and what is solid") {
  TempFolder folder;
  write_small_game(folder);
  vole::Catalog catalog(folder.path());
  const auto level = catalog.get<vole::Level>("patch");
  CHECK(level->size() == vole::IVec2{80, 32});
  CHECK(level->layers[0].tiles.at(3, 2) == level->tiles.paint("grass").cell.number());
  CHECK(level->solid.solid(4, 3));
  CHECK_FALSE(level->solid.solid(3, 2));
  REQUIRE(level->places.size() == 2);
  CHECK(level->places[0].at == vole::Vec2{12, 24});
  CHECK(level->layer("things") == 1);
}

TEST_CASE("a level edited to use a sheet that was loaded later follows that sheet") {
  TempFolder folder;
  write_small_game(folder);
  vole::Catalog catalog(folder.path());
  const auto level = catalog.get<vole::Level>("patch");
  folder.write_picture("assets/far.png", {8, 8}, {1, 2, 3, 255});
  catalog.get<vole::Sheet>("far");
  const auto refresh = [&] {
    vole::Report report;
    catalog.refresh(report);
    CHECK(report.problems().empty());
  };
  std::string text = vole::read_text(folder.path("levels/patch.level.toml"), 1 << 20);
  text.replace(text.find("[[layers]]"), 0, "[[layers]]\nname = \"far\"\npicture = \"far\"\n\n");
  folder.write("levels/patch.level.toml", text);
  refresh();
  REQUIRE(level->layers[0].picture);
  for (int side = 9; side < 14; ++side) {
    folder.write_picture("assets/far.png", {side, side}, {1, 2, 3, 255});
    refresh();
    CHECK(level->layers[0].frame.size == vole::IVec2{side, side});
  }
}

TEST_CASE("what is wrong with a level is reported at its place") {
  CHECK(level_with("\"...,......\"", "\"...,.....\"") ==
        "levels/patch.level.toml:9:13: error: this row has 9 letters, but the first has 10");
  CHECK(level_with("\"...,......\"", "\"...;......\"") ==
        "levels/patch.level.toml:9:7: error: no letter \";\" in [letters]; did you mean \".\"?");
  CHECK(level_with("\"grass\"", "\"gras\"") ==
        "levels/patch.level.toml:2:43: error: no tile \"gras\" in tileset \"soil\"; did you mean \"grass\"?");
  CHECK(level_with("\"soil\"\n", "\"sol\"\n") ==
        "levels/patch.level.toml:1:11: error: no tileset \"sol\"; did you mean \"soil\"?");
  CHECK(level_with("cell = [1, 2]", "cel = [1, 2]").find("unknown key \"cel\"; did you mean \"cell\"?") !=
        std::string::npos);
  CHECK(level_with("cell = [1, 2]", "").find("a place has either \"cell\" or \"at\"") != std::string::npos);
  CHECK(level_with("name = \"things\"", "name = \"ground\"").find("layer \"ground\" is defined twice") !=
        std::string::npos);
  CHECK(level_with("name = \"things\"", "name = \"sky\"\npicture = \"mous\"")
            .find("no sheet \"mous\"; did you mean \"mouse\"?") != std::string::npos);
}

TEST_CASE("kinds come from one file or many, each once") {
  TempFolder folder;
  write_small_game(folder);
  folder.write("kinds/foes.toml", "[owl]\nbody = {}\n");
  vole::Kinds kinds = vole::read_kinds(folder.path());
  CHECK(kinds.has("owl"));
  CHECK(error_of([&] { kinds.kind("mosue"); }, folder) ==
        "error: no kind \"mosue\"; did you mean \"mouse\"?");
  folder.write("kinds/more.toml", "[owl]\n[mouse]\n");
  const std::string message = error_of([&] { vole::read_kinds(folder.path()); }, folder);
  CHECK(message.find("kinds/more.toml:1:2: error: kind \"owl\" is defined twice; the first is at") == 0);
  CHECK(message.find("kinds/more.toml:2:2: error: kind \"mouse\" is defined twice") != std::string::npos);
}

TEST_CASE("a changed file is reloaded, a broken one leaves the last good version") {
  TempFolder folder;
  write_small_game(folder);
  vole::Catalog catalog(folder.path());
  const auto sheet = catalog.get<vole::Sheet>("mouse");
  vole::Report report;
  CHECK(catalog.refresh(report) == 0);

  folder.write("assets/mouse.sheet.toml", "frame = { size = [16, 16] }\n");
  CHECK(catalog.refresh(report) == 1);
  CHECK(sheet->frames.size() == 2);
  CHECK(sheet.version() == 2);

  folder.write("assets/mouse.sheet.toml", "frame = { size = [5, 5] }\n");
  CHECK(catalog.refresh(report) == 0);
  CHECK(report.problems().size() == 1);
  CHECK(catalog.broken().size() == 1);
  CHECK(sheet->frames.size() == 2);

  // A picture of another size makes its sheet good again.
  folder.write_picture("assets/mouse.png", {10, 10});
  CHECK(catalog.refresh(report) == 2);
  CHECK(sheet->frames.size() == 4);
  CHECK(catalog.broken().empty());

  std::filesystem::remove(folder.path("assets/mouse.png"));
  vole::Report gone;
  catalog.refresh(gone);
  CHECK(gone.has_errors());
  CHECK(sheet->pictures[0]->size() == vole::IVec2{10, 10});
}

TEST_CASE("what a level lacks is reported, also when it has no tileset or no layer") {
  TempFolder folder;
  write_small_game(folder);
  const auto wrong = [&](const std::string& text) {
    folder.write("levels/l.level.toml", text);
    return error_of([&] { vole::Catalog(folder.path()).get<vole::Level>("l"); }, folder);
  };
  CHECK(wrong("letters = { \"#\" = \"soil\" }\n[[layers]]\nname = \"a\"\n") ==
        "levels/l.level.toml:1:19: error: tile \"soil\" without a tileset; name one with tileset = \"...\"");
  CHECK(wrong("layers = []\n") == "levels/l.level.toml: error: a level has at least one layer");
  const std::string head = "tileset = \"soil\"\nletters = { \"#\" = \"soil\", \".\" = \"\" }\n";
  CHECK(wrong(head + "[[layers]]\nname = \"a\"\nrows = [\"##\", \"..\"]\n"
                     "[[layers]]\nname = \"b\"\nrows = [\"##\"]\n") ==
        "levels/l.level.toml:7:8: error: layer \"b\" has 1 rows, but \"a\" has 2");
  const auto long_row = [&](int letters) {
    return wrong(head + "[[layers]]\nname = \"a\"\nrows = [\"" +
                 std::string(static_cast<std::size_t>(letters), '.') + "\"]\n");
  };
  CHECK(long_row(65536 / 8).empty());
  CHECK_THAT(long_row(65536 / 8 + 1),
             Catch::Contains("the level is too large: 65544 x 8 pixels; at most 65,536 each way"));
  CHECK_THAT(wrong("cells = [1000000000, 1000000000]\n[[layers]]\nname = \"a\"\n"),
             Catch::Contains(
                 "levels/l.level.toml:1:9: error: the level is too large: 16000000000 x 16000000000 pixels"));
}

TEST_CASE("a name that failed once fails alike, and is no font to choose from") {
  TempFolder folder;
  write_small_game(folder);
  folder.write("assets/letters.sheet.toml", "[font]\nglyph = 1\n");
  vole::Catalog catalog(folder.path());
  catalog.remember_failures();
  const auto get = [&] { return error_of([&] { catalog.get<vole::Sheet>("letters"); }, folder); };
  const std::string first = get();
  CHECK(first.find("unknown key \"glyph\"") != std::string::npos);
  folder.write("assets/letters.sheet.toml", "[font]\nglyphs = [\"a\"]\n");
  CHECK(get() == first);
  folder.write("assets/letters.sheet.toml", "[font]\nglyph = 1\n");
  CHECK(error_of([&] { vole::Catalog(folder.path()).get<vole::Font>("lettrs"); }, folder) ==
        "error: no font \"lettrs\"; known: \"plain\"");
}
