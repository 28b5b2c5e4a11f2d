// `vole atlas`: what comes out shows the same as what went in.
#include "vole/asset/atlas.hpp"

#include <algorithm>
#include <filesystem>
#include <sstream>

#include "support.hpp"
#include "vole/asset/font.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/draw/raster.hpp"
#include "vole/level/tileset.hpp"

namespace {

using vole::Colour;
using vole::Image;
using vole::IRect;
using vole::IVec2;

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

// A picture with holes, its borders mostly empty.
Image blotch(vole::Random& chance, IVec2 size) {
  Image image(size);
  const IVec2 from{static_cast<int>(chance.below(static_cast<std::uint32_t>(size.x))),
                   static_cast<int>(chance.below(static_cast<std::uint32_t>(size.y)))};
  for (int y = from.y; y < size.y; ++y)
    for (int x = from.x; x < size.x; ++x)
      if (chance.chance(0.6f))
        image.at(x, y) = {static_cast<std::uint8_t>(chance.below(256)),
                          static_cast<std::uint8_t>(chance.below(256)), 90,
                          static_cast<std::uint8_t>(chance.chance(0.2f) ? 128 : 255)};
  return image;
}

// The whole frame as it is drawn, its cut-away borders included.
std::vector<Colour> shown(const vole::Frame& frame) {
  std::vector<Colour> pixels;
  for (int y = 0; y < frame.size.y; ++y)
    for (int x = 0; x < frame.size.x; ++x) {
      const IVec2 in = IVec2{x, y} - frame.offset;
      const bool there = IRect{{0, 0}, frame.area.size}.contains(in);
      pixels.push_back(there ? frame.picture->row(frame.area.top() + in.y)[frame.area.left() + in.x]
                             : vole::clear);
    }
  return pixels;
}

// A folder of sheets of every sort.
void write_garden(const TempFolder& folder, std::uint64_t seed) {
  vole::Random chance(seed);
  for (int i = 0; i < 12; ++i) {
    const IVec2 size{1 + static_cast<int>(chance.below(30)), 1 + static_cast<int>(chance.below(30))};
    vole::write_png(folder.path(std::string("things/t").append(std::to_string(i)).append(".png")),
                    blotch(chance, size));
  }
  vole::write_png(folder.path("vole.png"), blotch(chance, {32, 16}));
  folder.write(
      "vole.sheet.toml",
      "frame = { size = [8, 8] }\npivot = [3, 7]\n[clips.run]\nframes = [0, 5]\nfps = 12.5\npivot = \"top\"\n"
      "[clips.turn]\nrow = 1\nrange = [1, 3]\ntracks = [\"swell\"]\n[sets.walk]\ndirections = \"two\"\nrows "
      "= { left = 1 "
      "}\n"
      "[tracks.swell.fields]\n\"body.size\" = [{ at = 1, value = [1, 2] }]\n"
      "[[rules]]\nclip = \"walk\"\nwhen = [\"not grounded\", \"tired\"]\nhold = 0.5\n"
      "[points.paw]\nat = [6, 2]\nframes = { 1 = [2, 3] }\n");
  for (const int i : {1, 2, 10})
    vole::write_png(folder.path(std::string("birds/magpie/f").append(std::to_string(i)).append(".png")),
                    blotch(chance, {6, 6}));
  folder.write("birds/magpie.sheet.toml", "folder = \"magpie\"\n[clips.fly]\nframes = [\"f2\", \"f10\"]\n");
  folder.write("cart.sheet.toml", "colour = \"#7a4a33\"\nsize = [8, 4]\n");
  vole::write_png(folder.path("letters.png"), blotch(chance, {24, 16}));
  folder.write(
      "letters.sheet.toml",
      "frame = { size = [8, 8] }\n[font]\nglyphs = [\"ABC\", \"D\\\"\\\\\"]\nkerning = { AB = -1 }\n");
  folder.write_picture("nothing.png", {5, 5}, vole::clear);
}

std::string all_of(const std::string& folder) {
  std::string all;
  for (const std::string& file : vole::list_files(folder))
    all += file + "\n" + vole::read_text(folder + "/" + file, 1 << 24) + "\n";
  return all;
}

}  // namespace

TEST_CASE("every frame, clip, point and letter is the same after packing") {
  for (const int page : {1024, 34}) {
    TempFolder folder, packed;
    write_garden(folder, 5);
    const Ran ran =
        vole_in(folder, "atlas . -o " + as_word(packed.path("assets")) + " --page " + std::to_string(page));
    CAPTURE(ran.output);
    REQUIRE(ran.code == 0);
    vole::Catalog loose(folder.path());
    loose.set_assets_folder(".");
    vole::Catalog atlas(packed.path());
    const auto names = vole::AssetType<vole::Sheet>::packed_names(atlas);
    CHECK(names.size() == 12 + 5);
    CHECK((page == 1024 || atlas.get<vole::Atlas>("atlas")->pages.size() > 1));
    for (const std::string& name : names) {
      CAPTURE(name);
      const auto before = loose.get<vole::Sheet>(name), after = atlas.get<vole::Sheet>(name);
      REQUIRE(before->frames.size() == after->frames.size());
      CHECK(before->frame_size == after->frame_size);
      for (std::size_t i = 0; i < before->frames.size(); ++i) {
        CHECK(before->frames[i].pivot == after->frames[i].pivot);
        CHECK(before->frames[i].size == after->frames[i].size);
        CHECK(shown(before->frames[i]) == shown(after->frames[i]));
      }
      REQUIRE(before->clips.size() == after->clips.size());
      for (std::size_t i = 0; i < before->clips.size(); ++i) {
        CHECK(before->clips[i].frames == after->clips[i].frames);
        CHECK(before->clips[i].millifps == after->clips[i].millifps);
        CHECK(before->posed(0, &before->clips[i]).pivot == after->posed(0, &after->clips[i]).pivot);
      }
      REQUIRE(before->sets.size() == after->sets.size());
      for (std::size_t i = 0; i < before->sets.size(); ++i)
        for (std::size_t m = 0; m < before->sets[i].members.size(); ++m) {
          CHECK(before->sets[i].members[m].clip == after->sets[i].members.at(m).clip);
          CHECK(before->sets[i].members[m].mirrored == after->sets[i].members.at(m).mirrored);
        }
      CHECK(before->rules.facts() == after->rules.facts());
      for (const vole::Track& track : before->tracks)
        CHECK(after->track(track.name).fields.at(0).at(500'000) == track.fields.at(0).at(500'000));
      for (const vole::SheetPoint& point : before->points)
        for (int i = 0; i < 8; ++i) CHECK(after->point(point.name).at(i) == point.at(i));
    }
    const auto before = loose.get<vole::Font>("letters"), after = atlas.get<vole::Font>("letters");
    for (const char* text : {"ABBA", "D\"\\", "C A"}) CHECK(before->measure(text) == after->measure(text));
  }
}

TEST_CASE("the same pictures give the same bytes, whatever the order in which they were written") {
  TempFolder a, b, packed_a, packed_b;
  write_garden(a, 7);
  // The same files, the last one first.
  std::vector<std::string> files = vole::list_files(a.path());
  std::reverse(files.begin(), files.end());
  for (const std::string& file : files) b.write(file, vole::read_text(a.path(file), 1 << 24));
  REQUIRE(vole_in(a, "atlas . -o " + as_word(packed_a.path())).code == 0);
  REQUIRE(vole_in(b, "atlas . -o " + as_word(packed_b.path())).code == 0);
  REQUIRE(vole_in(b, "atlas . -o " + as_word(packed_b.path())).code == 0);
  CHECK(all_of(packed_a.path()) == all_of(packed_b.path()));
}

TEST_CASE("equal frames are kept once, and each has an edge of its own colour round it") {
  TempFolder folder;
  Image image({20, 10});
  for (int y = 2; y < 6; ++y)
    for (int x = 3; x < 8; ++x) image.at(x, y) = image.at(x + 10, y + 1) = {200, 100, 50, 255};
  vole::write_png(folder.path("a.png"), image);
  folder.write("a.sheet.toml", "frame = { size = [10, 10] }\n");
  vole::write_png(folder.path("b.png"), image);
  const Ran ran = vole_in(folder, "atlas . -o out");
  CHECK(has(ran.output, "out/atlas.atlas.toml: 2 sheets, 3 frames (2 different), 1 page, "));
  const Image page = vole::read_png(folder.path("out/atlas-1.png"));
  int covered = 0;
  for (int y = 0; y < page.size().y; ++y)
    for (int x = 0; x < page.size().x; ++x) covered += page.at(x, y).a == 255 ? 1 : 0;
  // The small one with its edge, and the two together (with the gap between them) with theirs.
  CHECK(covered >= 7 * 6 + 2 * 5 * 4);
  CHECK(
      has(vole::read_text(folder.path("out/atlas.atlas.toml"), 1 << 20), "offset = [3, 3], size = [10, 10]"));
}

TEST_CASE("the header holds every name, and refuses two that would be one") {
  TempFolder folder;
  write_small_game(folder);
  folder.write("assets/sounds/plop.wav", "RIFF");
  folder.write_picture("assets/2nd/new.png", {4, 4});
  const Ran ran = vole_in(folder, "atlas . --header names.hpp");
  REQUIRE(ran.code == 0);
  CHECK_FALSE(vole::file_exists(folder.path("atlas-1.png")));
  const std::string header = vole::read_text(folder.path("names.hpp"), 1 << 20);
  for (const char* line : {"struct mouse {\n  static constexpr ::vole::SheetName name{{\"mouse\"}};",
                           "::vole::ClipName<::names::sheet::mouse> run{{\"run\"}};", "struct n_2nd_new {\n",
                           "::vole::TilesetName soil{{\"soil\"}};", "::vole::LevelName patch{{\"patch\"}};",
                           "::vole::ActionName jump{{\"jump\"}};", "::vole::AxisName walk{{\"walk\"}};",
                           "::vole::SoundName sounds_plop{{\"sounds/plop\"}};"})
    CHECK(has(header, line));
  // It compiles, and a clip that is not there does not.
  folder.write("good.cpp",
               "#include \"names.hpp\"\nconstexpr std::string_view run = names::sheet::mouse::clip::run;\n"
               "static_assert(run == \"run\");\n");
  folder.write("bad.cpp", "#include \"names.hpp\"\nauto clip = names::sheet::mouse::clip::rnu;\n");
  const std::string compile = "cd " + as_word(folder.path()) +
                              " && c++ -std=c++20 -Wall -Wextra -Wpedantic -Werror -fsyntax-only -I" +
                              as_word(source_folder() + "/include") + " ";
  const Ran compiled = run_command(compile + "good.cpp");
  CAPTURE(compiled.output);
  CHECK(compiled.code == 0);
  CHECK(run_command(compile + "bad.cpp").code != 0);

  folder.write_picture("assets/a-b.png", {4, 4});
  folder.write_picture("assets/a_b.png", {4, 4});
  const Ran clash = vole_in(folder, "atlas . --header names.hpp");
  CHECK(clash.code == 1);
  CHECK(clash.output == "error: \"a-b\" and \"a_b\" would both be \"a_b\" in C++; rename one of them\n");
}

TEST_CASE("what cannot be packed is reported, and nothing is written") {
  TempFolder folder;
  const auto packing = [&](const std::string& more = {}) {
    return vole_in(folder, "atlas in -o out " + more);
  };
  CHECK(packing().output == "in: error: no such folder\n");
  folder.write("in/notes.txt", "");
  CHECK(packing().output == "in: error: holds no picture to pack\n");
  folder.write_picture("in/large.png", {100, 20});
  CHECK(has(packing("--page 64").output,
            "error: 102 x 22 pixels do not fit on a page of 64 x 64; allow larger pages"));
  folder.write("in/torn.png", "\x89PNG\r\n\x1a\n and no more");
  folder.write("in/b.sheet.toml", "picture = \"large\"\nframe = { size = [7, 7] }\n");
  const Ran both = packing();
  CHECK(both.code == 1);
  CHECK(has(both.output, "in/torn.png: error: is cut off"));
  CHECK(has(both.output, "in/b.sheet.toml:2:9: error: frames of 7 pixels"));
  CHECK_FALSE(vole::folder_exists(folder.path("out")));
  CHECK(vole_in(folder, "atlas in").code == 2);
  CHECK(vole_in(folder, "atlas in -o out --page 0").code == 2);
  // A ring of links is not walked, and a gigabyte of nothing is refused by its size.
  std::filesystem::remove_all(folder.path("in"));
  folder.write_picture("in/a.png", {4, 4});
  std::filesystem::create_directory_symlink(folder.path("in"), folder.path("in/ring"));
  run_command("truncate -s 1G " + as_word(folder.path("in/nothing.png")));
  CHECK(has(packing().output, "in/nothing.png: error: is 1073741824 bytes long; the most"));
  std::filesystem::remove(folder.path("in/nothing.png"));
  CHECK(packing().code == 0);
}

TEST_CASE("pages that a smaller atlas no longer has are taken away") {
  TempFolder folder;
  write_garden(folder, 9);
  REQUIRE(vole_in(folder, "atlas . -o out --page 34").code == 0);
  REQUIRE(vole::file_exists(folder.path("out/atlas-2.png")));
  std::filesystem::remove_all(folder.path("out2"));
  TempFolder other;
  std::filesystem::copy(folder.path("out"), other.path("out"));
  write_garden(other, 9);
  REQUIRE(vole_in(other, "atlas things -o out").code == 0);
  CHECK(vole::file_exists(other.path("out/atlas-1.png")));
  CHECK_FALSE(vole::file_exists(other.path("out/atlas-2.png")));
}

TEST_CASE("the picture of a tileset is packed, and its tiles are the same from the page") {
  TempFolder folder;
  write_small_game(folder);
  // With clear borders, which packing takes away, and a tile that is all clear.
  vole::Random chance(8);
  vole::Image image({40, 24});
  for (int y = 3; y < 21; ++y)
    for (int x = 5; x < 32; ++x)
      image.at(x, y) = {static_cast<std::uint8_t>(chance.below(256)), 90, 40,
                        static_cast<std::uint8_t>(chance.chance(0.2f) ? 0 : 255)};
  vole::write_png(folder.path("assets/soil.png"), image);
  folder.write("assets/soil.tileset.toml",
               "frame = { size = [8, 8] }\n[tiles]\nsoil = { cell = [0, 0], solid = true }\ngrass = { cell = "
               "[1, 1] }\n"
               "all = { cells = [[0, 0], [4, 2]] }\n");
  const auto drawn = [&] {
    vole::Catalog catalog(folder.path());
    const auto tileset = catalog.get<vole::Tileset>("soil");
    std::vector<vole::Image> tiles;
    for (const vole::Tile& tile : tileset->tiles) {
      vole::DrawList list;
      list.start({8, 8});
      list.add(list.add_layer({0, 0}), vole::show(tile.frames[0], {0, 0}));
      tiles.emplace_back(vole::IVec2{8, 8}, vole::Colour{1, 2, 3, 255});
      vole::Raster().draw(list, tiles.back());
    }
    return tiles;
  };
  const std::vector<vole::Image> before = drawn();
  REQUIRE(vole_in(folder, "atlas . -o assets --name pages").code == 0);
  std::filesystem::remove(folder.path("assets/soil.png"));
  CHECK(drawn() == before);
  // A page that lost it is told of.
  std::filesystem::remove(folder.path("assets/pages.atlas.toml"));
  CHECK_THAT(error_of([&] { vole::Catalog(folder.path()).get<vole::Tileset>("soil"); }, folder),
             Catch::Contains("no picture \"soil\""));
}
