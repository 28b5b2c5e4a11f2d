// What `vole preview` shows of animation: strips, one baseline, the rules, and motion.
#include <gif_lib.h>

#include <algorithm>
#include <chrono>
#include <map>
#include <thread>

#include "support.hpp"
#include "vole/asset/sheet.hpp"

namespace {

using vole::Colour;
using vole::Image;
using vole::IVec2;

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

// Eight frames, each of one colour that no other thing on a page has.
Colour colour_of(int frame) {
  return {static_cast<std::uint8_t>(20 + 30 * frame), 255, static_cast<std::uint8_t>(10 * frame), 255};
}

void write_colours(const TempFolder& folder, const std::string& clips) {
  write_small_game(folder);
  Image image({32, 16});
  for (int y = 0; y < 16; ++y)
    for (int x = 0; x < 32; ++x) image.at(x, y) = colour_of(y / 8 * 4 + x / 8);
  vole::write_png(folder.path("assets/mouse.png"), image);
  folder.write("assets/mouse.sheet.toml", "frame = { size = [8, 8] }\npivot = \"bottom\"\n" + clips);
}

bool shows(const Image& image, Colour colour) {
  for (int y = 0; y < image.size().y; ++y)
    for (int x = 0; x < image.size().x; ++x)
      if (image.at(x, y) == colour) return true;
  return false;
}

struct Moving {
  std::vector<int> hundredths;
  std::vector<Image> frames;
  int length() const {
    int sum = 0;
    for (const int each : hundredths) sum += each;
    return sum;
  }
};

Moving read_gif(const std::string& path) {
  int error = 0;
  GifFileType* const file = DGifOpenFileName(path.c_str(), &error);
  REQUIRE(file != nullptr);
  REQUIRE(DGifSlurp(file) == GIF_OK);
  Moving moving;
  for (int i = 0; i < file->ImageCount; ++i) {
    GraphicsControlBlock control{};
    REQUIRE(DGifSavedExtensionToGCB(file, i, &control) == GIF_OK);
    moving.hundredths.push_back(control.DelayTime);
    const SavedImage& saved = file->SavedImages[i];
    const ColorMapObject* map = saved.ImageDesc.ColorMap ? saved.ImageDesc.ColorMap : file->SColorMap;
    Image image({saved.ImageDesc.Width, saved.ImageDesc.Height});
    for (int y = 0; y < image.size().y; ++y)
      for (int x = 0; x < image.size().x; ++x) {
        const GifColorType& colour = map->Colors[saved.RasterBits[y * image.size().x + x]];
        image.at(x, y) = {colour.Red, colour.Green, colour.Blue, 255};
      }
    moving.frames.push_back(std::move(image));
  }
  DGifCloseFile(file, &error);
  return moving;
}

// Waits for it, at most 20 seconds.
template <class Done>
bool comes_true(const Done& done) {
  for (int i = 0; i < 200; ++i) {
    if (done()) return true;
    std::this_thread::sleep_for(std::chrono::milliseconds(100));
  }
  return false;
}

}  // namespace

TEST_CASE("a clip in motion shows each frame when the clip does, to half a hundredth of a second") {
  TempFolder folder;
  const std::map<std::string, std::string> clips{
      {"even", "range = [0, 7]\nfps = 12\n"},
      {"thirds", "frames = [3, 1, 2]\nfps = 7\n"},
      {"own", "frames = [5, 0, 6]\nseconds = [0.05, 0.333, 0.127]\n"},
      {"swing", "frames = [0, 1, 2, 3]\norder = \"back and forth\"\nfps = 9\n"},
      {"once", "frames = [4, 7]\nfps = 5\nloop = false\n"},
      {"thrice", "frames = [4, 7]\nfps = 10\ntimes = 3\n"}};
  std::string text;
  for (const auto& [name, lines] : clips) text.append("[clips.").append(name).append("]\n").append(lines);
  write_colours(folder, text);
  vole::Catalog catalog(folder.path());
  const auto sheet = catalog.get<vole::Sheet>("mouse");
  for (const auto& [name, lines] : clips) {
    CAPTURE(name);
    const Ran ran = vole_in(folder, "preview assets/mouse.sheet.toml --clip " + name + " -o out.gif");
    CAPTURE(ran.output);
    REQUIRE(ran.code == 0);
    const Moving moving = read_gif(folder.path("out.gif"));
    const vole::Clip& clip = sheet->clip(name);
    const double pass = static_cast<double>(clip.length()) / static_cast<double>(clip.units_per_second());
    const double whole = clip.loop ? pass : pass * clip.times + 0.5;
    CHECK(std::abs(moving.length() - whole * 100) <= 1);
    int at = 0;
    for (std::size_t i = 0; i < moving.frames.size(); ++i) {
      const double middle = (at + moving.hundredths[i] / 2.0) / 100;
      REQUIRE(shows(moving.frames[i], colour_of(clip.frame_at_seconds(middle))));
      // The frame before it gave way here, and the clip's own at most half a hundredth off.
      REQUIRE(clip.frame_at_seconds(at / 100.0 + 0.0051) == clip.frame_at_seconds(middle));
      at += moving.hundredths[i];
    }
  }
}

TEST_CASE("all clips move side by side, and tracks along with them") {
  TempFolder folder;
  write_colours(
      folder,
      "[clips.a]\nframes = [0, 1]\nfps = 4\n[clips.b]\nframes = [2, 3, 4]\nfps = 10\ntracks = [\"bob\"]\n"
      "[tracks.bob]\nloop = true\noffset = [{ at = 0, value = [0, 0] }, { at = 0.75, value = [0, -4] }, { "
      "at = 1.5, value = [0, 0] }]\n");
  REQUIRE(vole_in(folder, "preview assets/mouse.sheet.toml -o all.gif").code == 0);
  const Moving moving = read_gif(folder.path("all.gif"));
  // Clips of 0.5 and 0.3 seconds and a track of 1.5 are all at their beginning after 1.5.
  CHECK(moving.length() == 150);
  int top_least = 1000, top_most = 0, at = 0;
  for (std::size_t i = 0; i < moving.frames.size(); ++i) {
    const double middle = (at + moving.hundredths[i] / 2.0) / 100;
    const int a = static_cast<int>(middle * 4) % 2, b = 2 + static_cast<int>(middle * 10) % 3;
    REQUIRE(shows(moving.frames[i], colour_of(a)));
    REQUIRE(shows(moving.frames[i], colour_of(b)));
    at += moving.hundredths[i];
    for (int y = 0; y < moving.frames[i].size().y; ++y)
      for (int x = 0; x < moving.frames[i].size().x; ++x)
        if (moving.frames[i].at(x, y) == colour_of(b)) {
          top_least = std::min(top_least, y);
          top_most = std::max(top_most, y);
        }
  }
  CHECK(top_most - top_least > 8 * 8 + 20);
}

TEST_CASE("pictures of more than 256 colours move too") {
  TempFolder folder;
  write_small_game(folder);
  Image image({32, 16});
  for (int y = 0; y < 16; ++y)
    for (int x = 0; x < 32; ++x)
      image.at(x, y) = {static_cast<std::uint8_t>(x * 8), static_cast<std::uint8_t>(y * 16), 90, 255};
  vole::write_png(folder.path("assets/mouse.png"), image);
  REQUIRE(vole_in(folder, "preview assets/mouse.sheet.toml -o all.gif").code == 0);
  const Moving moving = read_gif(folder.path("all.gif"));
  CHECK(moving.frames.size() >= 3);
}

TEST_CASE("a strip and a baseline show every frame of the clip, a diagram what each rule plays") {
  TempFolder folder;
  write_colours(
      folder,
      "[clips.a]\nframes = [0, 3, 5]\nevents = { step = 1 }\n[clips.b]\nframes = [1, 2]\n[sets.both]\n"
      "directions = \"two\"\nclips = { right = \"b\" }\n[[rules]]\nclip = \"both\"\nwhen = [\"vx > 3\", "
      "\"not tired\"]\n"
      "[[rules]]\nclip = \"a\"\nhold = 0.3\n");
  const auto drawn = [&](const std::string& words) {
    const Ran ran = vole_in(folder, "preview assets/mouse.sheet.toml -o out.png " + words);
    CAPTURE(ran.output);
    REQUIRE(ran.code == 0);
    const Image image = vole::read_png(folder.path("out.png"));
    // A page ends where what is on it ends.
    CHECK(image.size().x <= 1280);
    CHECK(image.size().y <= 800);
    const auto plain = [&](int y) {
      for (int x = 1; x < image.size().x; ++x)
        if (image.at(x, y) != image.at(0, y)) return false;
      return true;
    };
    CHECK(plain(image.size().y - 1));
    CHECK_FALSE(plain(image.size().y - 25));
    std::string frames;
    for (int i = 0; i < 8; ++i)
      if (shows(image, colour_of(i))) frames += std::to_string(i);
    return frames;
  };
  CHECK(drawn("--clip a") == "035");
  CHECK(drawn("--clip both") == "12");
  CHECK(drawn("--show baseline") == "01235");
  CHECK(drawn("--show baseline --clip b") == "12");
  CHECK(drawn("--show rules") == "01");
  const auto wrong = [&](const std::string& words) {
    const Ran ran = vole_in(folder, "preview " + words);
    return std::to_string(ran.code) + " " + ran.output;
  };
  CHECK(wrong("assets/mouse.sheet.toml -o out.png --clip bath") ==
        "1 error: no clip or set \"bath\" in \"mouse\"; did you mean \"both\"?\n");
  CHECK(has(wrong("assets/mouse.sheet.toml -o out.gif --show rules"),
            "1 out.gif: error: \"rules\" does not move"));
  CHECK(has(wrong("assets/soil.tileset.toml -o out.gif"),
            "1 out.gif: error: only clips of a sheet move, and "));
  CHECK(has(wrong("levels/patch.level.toml -o out.png --clip a"),
            "is a level, which has no clips; leave out --clip"));
  CHECK(
      has(wrong("levels/patch.level.toml -o out.png --show edges"), "of which --show edges shows nothing; "));
  CHECK(has(wrong("assets/soil.tileset.toml -o out.png --show edges"),
            "has no materials whose edges could be shown"));
  CHECK(has(wrong("assets/mouse.sheet.toml -o out.png --show stripes"),
            "2 --show: stripes not in {all,baseline,edges,jump,light,mind,reach,rules,shapes}"));
  write_colours(folder, "");
  CHECK(has(wrong("assets/mouse.sheet.toml -o out.png --show rules"), "has no clip rules to show"));
  CHECK(has(wrong("assets/mouse.sheet.toml -o out.gif"),
            "1 assets/mouse.sheet.toml: error: has no clips to show"));
}

TEST_CASE("a level is shown with its light, and with where the next piece joins") {
  TempFolder folder;
  write_colours(folder, "");
  std::string rows;
  for (int y = 0; y < 12; ++y) rows += "\"" + std::string(24, '#') + "\",\n";
  folder.write("kinds.toml",
               "[glow]\nlamp = { radius = 24, falloff = 0, shadows = false, colour = \"#ffffff\" }\n");
  folder.write(
      "levels/patch.level.toml",
      "tileset = \"soil\"\nletters = { \"#\" = \"soil\" }\n[light]\ndarkness = 1\n[[layers]]\nname = "
      "\"ground\"\nrows = [\n" +
          rows +
          "]\n[[places]]\nkind = \"glow\"\nat = [48, 48]\n"
          "[[openings]]\nname = \"way\"\nside = \"right\"\nat = 5\n"
          "[[paths]]\nname = \"round\"\npoints = [[100, 80], [180, 80]]\n");
  const auto shown = [&](const std::string& show) {
    const Ran ran = vole_in(folder, "preview levels/patch.level.toml -o out.png --show " + show);
    CAPTURE(ran.output);
    REQUIRE(ran.code == 0);
    return vole::read_png(folder.path("out.png"));
  };
  const Image bright = shown("all"), lit = shown("light"), shapes = shown("shapes");
  const int factor = bright.size().x / (24 * 8);
  REQUIRE(factor > 1);
  const auto at = [factor](const Image& image, int x, int y) { return image.at(x * factor, y * factor); };
  CHECK(at(lit, 60, 40) == at(bright, 60, 40));
  CHECK(at(lit, 90, 48) == vole::Colour{0, 0, 0, 255});
  CHECK(at(lit, 190, 5) == vole::Colour{0, 0, 0, 255});
  CHECK(at(shapes, 190, 42) == vole::Colour{0xed, 0xa6, 0x3f, 0xff});
  CHECK(at(shapes, 190, 38) != vole::Colour{0xed, 0xa6, 0x3f, 0xff});
  CHECK(at(shapes, 140, 80) == vole::Colour{0x7d, 0x9a, 0xdc, 0xff});
}

TEST_CASE("kinds are shown with their bodies, and a sheet with those of the kinds that show it") {
  TempFolder folder;
  write_colours(folder, "");
  folder.write("assets/mouse.sheet.toml", "frame = { size = [8, 8] }\npivot = [0, 0]\n");
  folder.write("kinds.toml", R"([seen]
sprite = { sheet = "mouse" }
shapes = [{ area = [2, 2, 4, 4] }, { at = [4, 4], radius = 3, use = "sensor" }]
probes.near = { area = [1, 1, 6, 6] }
probes.far = { from = [0, 7], to = [7, 7] }
[bare]
sprite = { sheet = "mouse" }
[board]
body = { size = [8, 4], one_way = "up" }
[gone]
body = { size = [4, 4], use = "off" }
)");
  // How many pixels of the page are of a colour.
  const auto count = [&](const std::string& words, vole::Colour colour) {
    const Ran ran = vole_in(folder, "preview " + words + " -o out.png");
    CAPTURE(words, ran.output);
    REQUIRE(ran.code == 0);
    const vole::Image page = vole::read_png(folder.path("out.png"));
    int found = 0;
    for (int y = 52; y < page.size().y; ++y)
      for (int x = 0; x < page.size().x; ++x) found += page.at(x, y) == colour;
    return found;
  };
  const vole::Colour solid{0x7f, 0xb8, 0xb0, 0xff}, sensor{0xb1, 0x89, 0xb4, 0xff},
      one_way{0xed, 0xa6, 0x3f, 0xff}, probe{0xcd, 0xdc, 0x5a, 0xff};
  // A square of 4 pixels, 8 times as large, its rim 2 wide: the circle and the probes cover some of it.
  CHECK(count("kinds.toml", solid) > 100);
  CHECK(count("kinds.toml", sensor) > 100);
  CHECK(count("kinds.toml", one_way) > 100);
  CHECK(count("kinds.toml --show shapes", probe) > 200);
  CHECK(count("assets/mouse.sheet.toml --show shapes", solid) > 8 * 100);
  CHECK(count("assets/mouse.sheet.toml --show shapes", one_way) == 0);
  CHECK(count("assets/mouse.sheet.toml", solid) == 0);
  // One alone, with what it says itself and what it is made from.
  folder.write("kinds.toml",
               "[base]\nsprite = { sheet = \"mouse\" }\nbody = { size = [4, 4] }\n[own]\nfrom = \"base\"\n"
               "body = { use = \"sensor\" }\nprobes.near = { area = [0, 0, 2, 2] }\n");
  const Ran ran = vole_in(folder, "preview kinds.toml --kind own -o out.png");
  CHECK(ran.code == 0);
  const auto line = [&](const std::string& text, const std::string& where) {
    return has(ran.output, text + std::string(57 - text.size(), ' ') + where + "\n");
  };
  CHECK(line("sprite.sheet = \"mouse\"", "kinds.toml:2"));
  CHECK(line("body.size = [4, 4]", "kinds.toml:3"));
  CHECK(line("body.use = \"sensor\"", "kinds.toml:6"));
  CHECK(line("probes.near.area = [0, 0, 2, 2]", "kinds.toml:7"));
  CHECK(count("kinds.toml --kind own", sensor) > 100);
  CHECK(count("kinds.toml --kind base", solid) > 100);
  folder.write("kinds.toml", "[bare]\nsprite = { sheet = \"mouse\" }\n");
  const auto wrong = [&](const std::string& words) {
    return vole_in(folder, "preview " + words + " -o out.png").output;
  };
  CHECK(has(wrong("assets/mouse.sheet.toml --show shapes"), "no kind with a body shows this sheet"));
  CHECK(has(wrong("kinds.toml --show rules"),
            "is a file of kinds, of which --show rules shows nothing; --show has these words for it: all, "
            "jump, mind, shapes"));
  CHECK(has(wrong("kinds.toml --kind bear"), "no kind \"bear\"; did you mean \"bare\"?"));
  CHECK(has(wrong("assets/mouse.sheet.toml --kind bare"), "is a sheet, which has no kinds; leave out --kind"));
  folder.write("kinds.toml", "");
  CHECK(has(wrong("kinds.toml"), "has no kinds to show"));
}

TEST_CASE("a preview that watches draws again on a change, and keeps the last good picture") {
  TempFolder folder;
  write_colours(folder, "[clips.a]\nframes = [0]\n");
  const std::string tool = as_word(variable("VOLE_TOOL"));
  const Ran started =
      run_command("cd " + as_word(folder.path()) + " && { timeout 60 " + tool +
                  " preview assets/mouse.sheet.toml --clip a -o out.png --watch > log 2>&1 & echo $!; }");
  const auto log = [&] { return vole::read_text(folder.path("log"), 1 << 20); };
  const auto shown = [&](int frame) {
    return shows(vole::read_png(folder.path("out.png")), colour_of(frame));
  };
  REQUIRE(comes_true([&] { return log() == "out.png\n"; }));
  CHECK(shown(0));
  folder.write("assets/mouse.sheet.toml", "frame = { size = [8, 8] }\n[clips.a]\nframes = [9]\n");
  CHECK(comes_true([&] { return has(log(), "clip \"a\" names frame 9, but \"mouse\" has 8 frames"); }));
  CHECK(shown(0));
  folder.write("assets/mouse.sheet.toml", "frame = { size = [8, 8] }\n[clips.a]\nframes = [6]\n");
  CHECK(comes_true([&] { return shown(6); }));
  run_command("kill " + started.output);
}

TEST_CASE("what a jump reaches is said in tiles, and a level shows who gets where and how") {
  TempFolder folder;
  write_small_game(folder);
  folder.write("kinds.toml",
               "[mouse]\nbody = { size = [6, 6] }\nside_mover = { speed = 60, jump = 150, gravity = 600, "
               "acceleration = 100000 }\nplayer = {}\n"
               "[dog]\nbody = { size = [6, 6] }\ntop_mover = {}\n"
               "[[dog.mind]]\ndoes = \"chase\"\nof = \"mouse\"\nwithin = 60\nseen = true\n[[dog.mind]]\ndoes "
               "= \"wander\"\n"
               "[crumb]\nbody = { size = [4, 4], use = \"sensor\" }\n");
  const std::string level =
      "tileset = \"soil\"\nletters = { \".\" = \"\", \"#\" = \"soil\" }\n[[layers]]\nname = \"ground\"\nrows "
      "= [\n"
      "\"................\",\n\"..........####..\",\n\"................\",\n\"................\",\n\".....##."
      "........\",\n"
      "\"................\",\n\"################\",\n]\n[[places]]\nkind = \"mouse\"\nat = [12, 48]\n"
      "[[places]]\nkind = \"crumb\"\nat = [48, 30]\n[[places]]\nkind = \"crumb\"\nat = [96, 8]\n";
  folder.write("levels/patch.level.toml", level);
  const auto said = [&](const std::string& words) {
    const Ran ran = vole_in(folder, "preview " + words + " -o out.png");
    CAPTURE(words, ran.output);
    REQUIRE(ran.code == 0);
    return ran.output;
  };
  // 150 upwards against 600, in ticks: 17.5 of 8 pixels high in half a second, in which it gets 30 pixels far.
  const std::string jump = said("kinds.toml --kind mouse --show jump");
  CHECK(has(jump, "standing, full   2.19 high"));
  CHECK(has(jump, " 0.00 long  0.5"));
  CHECK(has(jump, "running, full    2.19 high   3.7"));
  const std::string reach = said("levels/patch.level.toml --kind mouse --show reach");
  CHECK(has(reach, "2 of 3 ledges are reached by \"mouse\""));
  CHECK(has(reach, "not reached: ledge from [80, 8] to [112, 8]"));
  const Image shown = vole::read_png(folder.path("out.png"));
  CHECK(shows(shown, {0x4f, 0xe0, 0xd0, 0xff}));
  CHECK(shows(shown, {0xff, 0x4a, 0x6a, 0xff}));
  said("kinds.toml --kind dog --show mind");
  const auto wrong = [&](const std::string& words) {
    const Ran ran = vole_in(folder, "preview " + words + " -o out.png");
    CHECK(ran.code == 1);
    return ran.output;
  };
  CHECK(has(wrong("kinds.toml --show jump"), "which kind to show the jump of is missing"));
  CHECK(has(wrong("kinds.toml --kind crumb --show jump"), "has no side_mover"));
  CHECK(has(wrong("kinds.toml --kind mouse --show mind"), "has no mind"));
  CHECK(has(wrong("levels/patch.level.toml --show reach"), "which kind is to get there is missing"));
  CHECK(has(wrong("levels/patch.level.toml --kind dog --show reach"), "has no place for a \"dog\""));
  CHECK(has(wrong("levels/patch.level.toml --kind crumb --show reach"), "no side_mover"));
  // And check tells of it.
  folder.write("src/main.cpp", "\"patch\" \"mouse\" \"dog\"");
  const std::string check = vole_in(folder, "check").output;
  CAPTURE(check);
  CHECK(has(check, "levels/patch.level.toml:21:8: warning: \"mouse\" does not get to this \"crumb\""));
  CHECK(has(check, "does not get to the ledge from [80, 8]") == false);
  CHECK(has(check, "[unreached-thing]"));
  CHECK_FALSE(has(check, "patch.level.toml:18"));
}
