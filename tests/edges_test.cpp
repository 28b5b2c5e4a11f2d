// What lies at the edge: values just inside and outside a limit, and what is drawn over a game by itself.
#include "alone.hpp"
#include "support.hpp"
#include "vole/app/options.hpp"
#include "vole/app/trouble.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/base/reading.hpp"
#include "vole/draw/raster.hpp"
#include "vole/input/gather.hpp"
#include "vole/level/level.hpp"
#include "vole/scene/movers/side_motion.hpp"

namespace {

using vole::Colour;
using vole::Image;

constexpr Colour paper{0xff, 0xff, 0xff, 0xff};

template <class Draw>
Image drawn(vole::IVec2 canvas, const Draw& draw) {
  vole::DrawList list;
  list.start(canvas);
  draw(list);
  list.sort();
  Image image(canvas, paper);
  vole::Raster().draw(list, image);
  return image;
}

bool row_is(const Image& image, int y, Colour colour) {
  for (int x = 0; x < image.size().x; ++x)
    if (image.at(x, y) != colour) return false;
  return true;
}

vole::Problem problem(const std::string& file, const std::string& text) {
  return {vole::FilePosition::whole_file(file), vole::Severity::error, text, {}, 1, {}};
}

struct Bounded {
  int whole = 3;
  float number = 3;
  vole::Vec2 pair{3, 3};
};
template <class V>
void describe(V& v, Bounded& bounded) {
  v("whole", bounded.whole, vole::within(-2, 5));
  v("number", bounded.number, vole::within(-2, 5));
  v("pair", bounded.pair, vole::within(-2, 5));
}

std::size_t problems_of(const std::string& text) {
  vole::Report report;
  Bounded bounded;
  vole::read(vole::parse_toml(text, "f.toml"), bounded, report);
  return report.problems().size();
}

std::optional<int> parsed(std::vector<const char*> words, vole::Options& options) {
  words.insert(words.begin(), "game");
  return vole::parse_options(static_cast<int>(words.size()), words.data(), "A game.", options);
}

}  // namespace

TEST_CASE("trouble is a strip at the bottom, as high as its text and never above a third of the canvas") {
  vole::Trouble trouble("/games/a");
  const vole::IVec2 canvas{160, 90};
  const auto height = [&] {
    const Image image = drawn(canvas, [&](vole::DrawList& list) { trouble.draw(list); });
    int rows = 0;
    while (rows < canvas.y && image.at(0, canvas.y - 1 - rows) != paper) ++rows;
    for (int y = 0; y < canvas.y - rows; ++y) REQUIRE(row_is(image, y, paper));
    return rows;
  };
  CHECK(height() == 0);
  trouble.show({problem("/games/a/kinds.toml", "short")});
  CHECK(trouble.text() == "kinds.toml: error: short");
  CHECK(height() == 11 + 4);
  trouble.show({problem("/games/ab/kinds.toml", "not below the game's folder")});
  CHECK(trouble.first_line() == "/games/ab/kinds.toml: error: not below the game's folder");
  CHECK(height() == 2 * 11 + 4);
  std::string text = "long";
  for (int i = 0; i < 60; ++i) text += " word";
  trouble.show({problem("a", text), problem("b", "x"), problem("c", "y")});
  CHECK(trouble.text().ends_with("\nand 2 more"));
  CHECK(height() == canvas.y / 3);
  trouble.show({});
  CHECK(height() == 0);
  // Letters are four pixels from the left, in a strip over the whole width.
  trouble.show({problem("", "HH")});
  const Image image = drawn(canvas, [&](vole::DrawList& list) { trouble.draw(list); });
  bool inked = false;
  for (int y = canvas.y - 15; y < canvas.y; ++y) {
    for (int x = 0; x < 3; ++x) REQUIRE(image.at(x, y) == image.at(0, canvas.y - 1));
    for (int x = 4; x < canvas.x; ++x) inked |= image.at(x, y) == vole::white;
  }
  CHECK(inked);
}

TEST_CASE("the loading bar is in the middle, and filled as far as loading is") {
  const vole::IVec2 canvas{80, 40};
  constexpr Colour rim{0x8d, 0x93, 0xa6, 0xff}, bar{0xed, 0xa6, 0x3f, 0xff};
  for (const auto& [done, total, filled] : std::vector<std::array<int, 3>>{
           {0, 4, 0}, {1, 4, 9}, {2, 4, 18}, {4, 4, 36}, {0, 0, 0}, {0, 1, 0}, {1, 1, 36}}) {
    CAPTURE(done, total);
    const Image image = drawn(canvas, [&, d = done, t = total](vole::DrawList& list) {
      vole::draw_progress(list, static_cast<std::size_t>(d), static_cast<std::size_t>(t));
    });
    for (int y = 0; y < canvas.y; ++y)
      for (int x = 0; x < canvas.x; ++x) {
        const bool in_box = x >= 20 && x < 60 && y >= 16 && y < 24;
        const bool on_rim = in_box && (x == 20 || x == 59 || y == 16 || y == 23);
        const bool in_bar = y >= 18 && y < 22 && x >= 22 && x < 22 + filled;
        REQUIRE(image.at(x, y) == (on_rim ? rim : in_bar ? bar : paper));
      }
  }
}

TEST_CASE("a limit holds at its edge, and not beyond") {
  for (const char* inside : {"whole = -2", "whole = 5", "number = -2", "number = 5.0", "pair = [-2, 5]"})
    CHECK(problems_of(inside) == 0);
  for (const char* outside :
       {"whole = -3", "whole = 6", "number = -2.01", "number = 5.01", "pair = [-2, 5.5]", "pair = [-3, 5]"})
    CHECK(problems_of(outside) == 1);
}

TEST_CASE("a place is a file, a line and a column, or the file as a whole") {
  const vole::FilePosition whole = vole::FilePosition::whole_file("a.toml");
  CHECK(to_text(whole) == "a.toml");
  CHECK(whole.line == 0);
  CHECK(whole.column == 0);
  CHECK(to_text(vole::FilePosition{whole.file, 1, 1}) == "a.toml:1:1");
  CHECK(to_text(vole::FilePosition{}).empty());
}

TEST_CASE("clips of one frame, frames with an offset alone, and letters that are none") {
  TempFolder folder;
  write_small_game(folder);
  folder.write("assets/one.sheet.toml",
               "picture = \"mouse\"\nframe = { size = [8, 8] }\n[clips.a]\nrange = [0, 0]\n"
               "[clips.b]\nrange = [7, 7]\n[clips.c]\nrow = 1\nrange = [3, 3]\n");
  vole::Catalog catalog(folder.path());
  const auto sheet = catalog.get<vole::Sheet>("one");
  CHECK(sheet->clip("a").frames == std::vector<int>{0});
  CHECK(sheet->clip("b").frames == std::vector<int>{7});
  CHECK(sheet->clip("c").frames == std::vector<int>{7});
  folder.write("assets/part.sheet.toml",
               "picture = \"mouse\"\n[frames]\na = { area = [1, 2, 8, 7], offset = [2, 3] }\n");
  const vole::Frame frame = catalog.get<vole::Sheet>("part")->frames.at(0);
  CHECK(frame.size == vole::IVec2{10, 10});
  CHECK(frame.offset == vole::IVec2{2, 3});
  CHECK(frame.area == vole::IRect{{1, 2}, {8, 7}});
  for (const char* letter : {"", "ab"}) {
    folder.write("levels/l.level.toml", std::string("tileset = \"soil\"\nletters = { \"") + letter +
                                            "\" = \"soil\" }\nlayers = [{ name = \"a\" }]\n");
    CHECK_THAT(error_of([&] { catalog.get<vole::Level>("l"); }, folder),
               Catch::Contains(std::string(":2:13: error: \"") + letter + "\" is not one letter"));
  }
}

TEST_CASE("a press begins in the middle of a stick's way, and an axis leaves its dead middle at a fifth") {
  const vole::Control stick = *vole::find_control("pad stick left x");
  vole::Controls controls;
  controls.actions.push_back({"push", {stick}});
  controls.axes.push_back({.name = "walk", .sticks = {stick}});
  const auto at = [&](float value) {
    vole::InputGather gather(controls);
    gather.add({stick, value});
    return gather.latch();
  };
  for (const float side : {-1.0f, 1.0f}) {
    CHECK_FALSE(at(side * 0.49f).held("push"));
    CHECK(at(side * 0.5f).held("push"));
    CHECK(at(side * 0.2f).axis("walk") == 0);
    CHECK(at(side * 0.19f).axis("walk") == 0);
    CHECK(at(side * 0.6f).axis("walk") == side * 0.5f);
    CHECK(at(side).axis("walk") == side);
  }
}

TEST_CASE("a thing wants to go at most as fast as it can") {
  const auto speed_after = [](float direction) {
    vole::SolidGrid grid({100, 4}, 16);
    for (int x = 0; x < 100; ++x) grid.set({x, 3}, true);
    Alone alone(grid);
    vole::SideMover mover;
    vole::Motion motion;
    vole::Touching touching;
    vole::Pose pose{{600, 48}, {600, 48}};
    for (int i = 0; i < 120; ++i) {
      vole::MoverTurn turn{{{direction, 0}, false, false}, 1 / 60.0f, alone.moving, motion, touching, pose};
      vole::move_sideways(turn, mover);
    }
    return motion.velocity.x;
  };
  CHECK(speed_after(1) == 90);
  CHECK(speed_after(3) == 90);
  CHECK(speed_after(-1) == -90);
  CHECK(speed_after(-3) == -90);
  CHECK(speed_after(0.5f) == 45);
}

TEST_CASE("a game's words give its options, or the code to end with") {
  vole::Options options;
  CHECK(parsed({"--help"}, options) == 0);
  CHECK(parsed({"--nothing"}, options) == 2);
  CHECK(parsed({"--headless"}, options) == 2);
  CHECK(parsed({"--scale", "33"}, options) == 2);
  CHECK(parsed({"--seed", "-1"}, options) == 2);
  CHECK(parsed({"--shot", "a.png@x"}, options) == 2);
  options = {};
  CHECK_FALSE(parsed(
      {"--headless", "--shot", "a.png@7", "--shot", "b.png@70", "--shot", "c.png", "--seed", "5"}, options));
  CHECK(options.ticks == 70);
  CHECK(options.seed == 5u);
  CHECK(options.shots.size() == 3);
  CHECK(options.shots[1].tick == 70);
  CHECK_FALSE(options.shots[2].tick);
  options = {};
  for (const std::vector<const char*>& wrong :
       std::vector<std::vector<const char*>>{{"--ticks"},
                                             {"--ticks", "5x"},
                                             {"--ticks=-5"},
                                             {"--ticks", "1000000000001"},
                                             {"--seed", "18446744073709551616"},
                                             {"--mute=yes"},
                                             {"--record", ""},
                                             {"--shot", "@5"},
                                             {"--xray", "nothing"},
                                             {"--replay", "a.run", "--record", "a.run"},
                                             {"--replay", "a.run", "--seed", "1"},
                                             {"--compare", "a.run"},
                                             {"stray"}})
    CHECK(parsed(wrong, options) == 2);
  options = {};
  CHECK_FALSE(
      parsed({"--ticks=12", "--seed", "18446744073709551615", "--xray", "bodies", "--mute"}, options));
  CHECK((options.ticks == 12 && options.seed == 18446744073709551615u &&
         options.xray != vole::XrayParts::usual() && options.mute));
  options = {};
  CHECK_FALSE(parsed({"--headless", "--ticks", "0"}, options));
  CHECK(options.ticks == 0);
  options = {};
  CHECK_FALSE(parsed({"--replay", "a.run", "--xray", "--mute", "--scale", "2"}, options));
  CHECK((options.xray == vole::XrayParts::usual() && options.mute && options.scale == 2 && !options.ticks));
  options = {};
  CHECK_FALSE(parsed({"--xray", "probes,names"}, options));
  CHECK(options.xray.has(vole::XrayPart::probes));
  CHECK(options.xray.has(vole::XrayPart::names));
  CHECK_FALSE(options.xray.has(vole::XrayPart::bodies));
  CHECK(parsed({"--xray", "bodys"}, options) == 2);
}
