// Where frames may come from, named points, pivots by clip, and sheets that lie in an atlas.
#include "vole/asset/sheet.hpp"

#include <atomic>
#include <thread>

#include "support.hpp"
#include "vole/asset/atlas.hpp"
#include "vole/asset/packing.hpp"
#include "vole/base/names.hpp"

namespace {

using vole::Colour;
using vole::Image;
using vole::IRect;
using vole::IVec2;

std::string wrong(const TempFolder& folder, const std::string& text) {
  folder.write("assets/a.sheet.toml", text);
  return error_of(
      [&] {
        vole::Catalog catalog(folder.path());
        catalog.get<vole::Sheet>("a");
      },
      folder);
}

bool has(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

}  // namespace

TEST_CASE("a folder of pictures is a sheet, its frames in the order in which people count") {
  TempFolder folder;
  for (const int number : {1, 2, 9, 10, 11})
    folder.write_picture(std::string("assets/birds/magpie/fly").append(std::to_string(number)).append(".png"),
                         {number, 4});
  folder.write("assets/birds/magpie.sheet.toml",
               "folder = \"magpie\"\npivot = \"bottom right\"\n[clips.fly]\nframes = [\"fly10\", 0]\n");
  vole::Catalog catalog(folder.path());
  const auto sheet = catalog.get<vole::Sheet>("birds/magpie");
  REQUIRE(sheet->frames.size() == 5);
  CHECK(sheet->frame_names == std::vector<std::string>{"fly1", "fly2", "fly9", "fly10", "fly11"});
  CHECK(sheet->frames[3].size == IVec2{10, 4});
  CHECK(sheet->frames[3].pivot == IVec2{10, 4});
  CHECK(sheet->clip("fly").frames == std::vector<int>{3, 0});
  CHECK(sheet->frame_size == IVec2{11, 4});
  // A frame that is added later is noticed.
  folder.write_picture("assets/birds/magpie/fly3.png", {3, 4});
  vole::Report report;
  catalog.refresh(report);
  CHECK(report.problems().empty());
  CHECK(sheet->frame_names[2] == "fly3");
}

TEST_CASE("names are in natural order, whatever the digits") {
  CHECK(vole::natural_less("frame2", "frame10"));
  CHECK(vole::natural_less("a", "b"));
  CHECK(vole::natural_less("frame", "frame1"));
  CHECK(vole::natural_less("f2", "f02"));
  CHECK_FALSE(vole::natural_less("f02", "f2"));
  CHECK(vole::natural_less("f99999999999999999998", "f99999999999999999999"));
  // An order: never both ways, and carried over from pair to pair.
  vole::Random chance(3);
  std::vector<std::string> names;
  for (int i = 0; i < 60; ++i) {
    std::string name;
    for (std::uint32_t length = chance.below(5); length > 0; --length) name += "a01-2"[chance.below(5)];
    names.push_back(name);
  }
  for (const std::string& a : names)
    for (const std::string& b : names) {
      REQUIRE_FALSE((vole::natural_less(a, b) && vole::natural_less(b, a)));
      if (a != b) REQUIRE((vole::natural_less(a, b) || vole::natural_less(b, a)));
      for (const std::string& c : names)
        if (vole::natural_less(a, b) && vole::natural_less(b, c)) REQUIRE(vole::natural_less(a, c));
    }
}

TEST_CASE("named frames, parts of a picture, and several sheets of one picture") {
  TempFolder folder;
  folder.write_picture("assets/parts.png", {32, 24});
  folder.write(
      "assets/lid.sheet.toml",
      "picture = \"parts\"\npivot = \"bottom\"\n[frames.shut]\narea = [0, 0, 20, 6]\n"
      "[frames.open]\narea = [0, 6, 8, 12]\npivot = [1, 2]\n[clips.lift]\nframes = [\"shut\", \"open\"]\n"
      "pivot = \"top left\"\n");
  folder.write("assets/soil.sheet.toml",
               "picture = \"parts.png\"\nframe = { size = [4, 4], spacing = 1, area = [20, 0, 9, 14] }\n");
  vole::Catalog catalog(folder.path());
  const auto lid = catalog.get<vole::Sheet>("lid");
  const auto soil = catalog.get<vole::Sheet>("soil");
  CHECK(lid->pictures[0] == soil->pictures[0]);
  CHECK(lid->frame("open") == 1);
  CHECK(lid->posed(0).pivot == IVec2{10, 6});
  CHECK(lid->posed(1).pivot == IVec2{1, 2});
  CHECK(lid->posed(1, &lid->clip("lift")).pivot == IVec2{0, 0});
  REQUIRE(soil->frames.size() == 6);
  CHECK(soil->frames[0].area == IRect{{20, 0}, {4, 4}});
  CHECK(soil->frames[5].area == IRect{{25, 10}, {4, 4}});
  CHECK(error_of([&] { lid->frame("opn"); }, folder) ==
        "error: no frame \"opn\" in \"lid\"; did you mean \"open\"?");
  // A sheet in a folder may share a picture of the folder above.
  folder.write("assets/deep/lid.sheet.toml", "picture = \"../parts\"\n");
  CHECK(catalog.get<vole::Sheet>("deep/lid")->pictures[0] == lid->pictures[0]);
}

TEST_CASE("a stand-in has a colour and a size, and its clips play") {
  TempFolder folder;
  folder.write("assets/cart.sheet.toml",
               "colour = \"#7a4a33\"\nsize = [24, 10]\ncount = 3\n[clips.roll]\nframes = [0, 1, 2]\n");
  vole::Catalog catalog(folder.path());
  const auto cart = catalog.get<vole::Sheet>("cart");
  CHECK(cart->stand_in);
  CHECK(cart->frames.size() == 3);
  CHECK(cart->frames[2].pivot == IVec2{12, 10});
  CHECK(cart->pictures[0]->row(5)[5] == Colour{0x7a, 0x4a, 0x33, 0xff});
  CHECK(cart->pictures[0]->row(0)[0] == Colour{0x3d, 0x25, 0x19, 0xff});
}

TEST_CASE("points lie where the sheet says, and elsewhere on the frames it names") {
  TempFolder folder;
  folder.write_picture("assets/a.png", {32, 8});
  folder.write("assets/a.sheet.toml",
               "frame = { size = [8, 8] }\n[points.paw]\nat = [6, 4]\nframes = { 3 = [7, 2], 1 = [5, 5] }\n");
  vole::Catalog catalog(folder.path());
  const auto sheet = catalog.get<vole::Sheet>("a");
  const vole::SheetPoint& paw = sheet->point("paw");
  CHECK(paw.at(0) == IVec2{6, 4});
  CHECK(paw.at(1) == IVec2{5, 5});
  CHECK(paw.at(3) == IVec2{7, 2});
  CHECK(error_of([&] { sheet->point("pw"); }, folder) ==
        "error: no point \"pw\" in \"a\"; did you mean \"paw\"?");
}

TEST_CASE("what is wrong with the sources of a sheet is reported at its place") {
  TempFolder folder;
  folder.write_picture("assets/a.png", {16, 16});
  folder.write("assets/empty/readme.txt", "");
  CHECK(has(wrong(folder, "colour = \"#000000\"\n"), "a stand-in needs a \"size\""));
  CHECK(has(wrong(folder, "colour = \"#000000\"\nsize = [4, 4]\npicture = \"a\"\n"), "made of one of"));
  CHECK(has(wrong(folder, "pages = [\"a.png\"]\npicture = \"a\"\n"), "made of one of"));
  CHECK(wrong(folder, "pages = [\"a.png\"]\n[frames]\nlid = { area = [0, 0, 4, 4] }\n").empty());
  CHECK(has(wrong(folder, "folder = \"empty\"\nframe = { size = [4, 4] }\n"), "and here is none"));
  CHECK(has(wrong(folder, "colour = \"#000000\"\nsize = [4, 4]\n[frames]\na = { area = [0, 0, 1, 1] }\n"),
            "\"frame\" and \"frames\" cut a picture, and here is none"));
  CHECK(has(wrong(folder, "[frames]\na = { area = [0, 0, 1, 1] }\n[clips.c]\nrow = 0\n"),
            "4:7: error: the frames of \"a\" lie in no rows"));
  CHECK(has(wrong(folder, "folder = \"none\"\n"), "a.sheet.toml:1:10: error: no folder \"none\""));
  CHECK(has(wrong(folder, "folder = \"../../etc\"\n"), "no folder"));
  CHECK(has(wrong(folder, "folder = \"empty\"\n"), "\"empty\" holds no PNG"));
  CHECK(has(wrong(folder, "frames = { lid = { area = [10, 0, 8, 4] } }\n"),
            "a.sheet.toml:1:27: error: frame \"lid\" is not inside its picture of 16 x 16"));
  CHECK(has(wrong(folder, "frames = { lid = { area = [0, 0, 8] } }\n"),
            "a box like [left, top, width, height]"));
  CHECK(has(wrong(folder, "frames = { lid = { area = [0, 0, 8, 4], page = 1 } }\n"),
            "is on page 1, but there is 1"));
  CHECK(has(wrong(folder, "frame = { size = [8, 8], area = [9, 0, 8, 8] }\n"),
            "1:33: error: this part is not inside"));
  CHECK(has(wrong(folder, "frame = { size = [8, 8] }\nclips = { a = { frames = [\"lid\"] } }\n"),
            "2:27: error: no frame \"lid\" in \"a\"; its frames go by number"));
  CHECK(has(wrong(folder, "points = { paw = { at = [1, 2], frames = { 4 = [0, 0] } } }\n"),
            "point \"paw\" names frame 4, but \"a\" has 1 frames"));
  CHECK(has(wrong(folder, "points = { paw = { at = [nan, 2] } }\n"), "a whole number wanted"));
  CHECK(has(wrong(folder, "frame = { size = [8, 8] }\nframes = { a = { area = [0, 0, 1, 1] } }\n"),
            "not both"));
  CHECK(has(wrong(folder, "colour = \"red\"\nsize = [1, 1]\n"), "a colour like"));
  CHECK(has(wrong(folder, "clips = { a = { frames = [0], fps = inf } }\n"), "a finite number wanted"));
}

TEST_CASE("a hundred thousand frames are reported at once and not made") {
  TempFolder folder;
  folder.write_picture("assets/a.png", {400, 400});
  CHECK(has(wrong(folder, "frame = { size = [1, 1] }\n"), "400 x 400 frames are more than the 65536"));
  std::string named = "[frames]\n", clip = "frame = { size = [8, 8] }\n[clips.a]\nframes = [";
  for (int i = 0; i < 100'000; ++i) {
    named.append("f").append(std::to_string(i)).append(" = { area = [0, 0, 1, 1] }\n");
    clip += "1,";
  }
  CHECK(has(wrong(folder, named), "100000 items are too many here; the most is 65536"));
  CHECK(has(wrong(folder, clip + "]\n"), "100000 items are too many here; the most is 65536"));
}

TEST_CASE("rectangles are packed without overlap, on small pages, whatever they are") {
  vole::Random chance(12);
  for (int round = 0; round < 30; ++round) {
    const auto count = 1 + chance.below(120);
    const int largest = 64 + static_cast<int>(chance.below(200));
    std::vector<IVec2> sizes;
    for (std::uint32_t i = 0; i < count; ++i)
      sizes.push_back({static_cast<int>(chance.below(60)), static_cast<int>(chance.below(60))});
    const vole::Packing packing = vole::pack(sizes, {largest, largest});
    std::vector<Image> pages;
    for (const IVec2 page : packing.pages) {
      REQUIRE(page.x <= largest);
      REQUIRE(page.y <= largest);
      pages.emplace_back(page);
    }
    for (std::size_t i = 0; i < sizes.size(); ++i)
      for (int y = 0; y < sizes[i].y; ++y)
        for (int x = 0; x < sizes[i].x; ++x) {
          Image& page = pages.at(static_cast<std::size_t>(packing.placed[i].page));
          const IVec2 at = packing.placed[i].at + IVec2{x, y};
          REQUIRE(page.area().contains(at));
          REQUIRE(page.at(at.x, at.y).a == 0);
          page.at(at.x, at.y) = vole::white;
        }
  }
  REQUIRE_THROWS_AS(vole::pack({{65, 2}}, {64, 64}), vole::Error);
}

TEST_CASE("a thousand mixed rectangles fill at least nine tenths of their page") {
  for (const std::uint64_t seed : {1u, 2u, 3u}) {
    vole::Random chance(seed);
    std::vector<IVec2> sizes;
    double area = 0, pages = 0;
    for (int i = 0; i < 1000; ++i) {
      sizes.push_back({4 + static_cast<int>(chance.below(61)), 4 + static_cast<int>(chance.below(61))});
      area += sizes.back().x * sizes.back().y;
    }
    for (const int largest : {2048, 512}) {
      const vole::Packing packing = vole::pack(sizes, {largest, largest});
      pages = 0;
      for (const IVec2 page : packing.pages) pages += page.x * page.y;
      CHECK(area / pages >= 0.9);
    }
  }
}

TEST_CASE("a broken atlas is reported, and what it holds is found by name beside loose files") {
  TempFolder folder;
  folder.write_picture("assets/pack-1.png", {16, 16}, {10, 20, 30, 255});
  folder.write(
      "assets/pack.atlas.toml",
      "pages = [\"pack-1.png\"]\n[sheets.\"deep/seed\"]\npivot = \"bottom\"\n[sheets.\"deep/seed\".frames]\n"
      "0 = { area = [1, 1, 6, 4], offset = [1, 3], size = [8, 8] }\n"
      "[sheets.lid]\n[sheets.lid.frames]\n0 = { area = [0, 0, 0, 0], size = [5, 5] }\n");
  vole::Catalog catalog(folder.path());
  const auto seed = catalog.get<vole::Sheet>("deep/seed");
  CHECK(seed->frames[0].pivot == IVec2{4, 8});
  CHECK(seed->frames[0].offset == IVec2{1, 3});
  CHECK(catalog.get<vole::Sheet>("lid")->frames[0].area.empty());
  CHECK(catalog.names<vole::Sheet>() == std::vector<std::string>{"deep/seed", "lid", "pack-1"});
  // Another atlas, later in the alphabet: it is asked for what the first has not, and no more.
  folder.write("assets/stock.atlas.toml",
               "pages = [\"pack-1.png\"]\n[sheets.pot.frames]\n0 = { area = [4, 4, 3, 2] }\n"
               "[sheets.lid.frames]\n0 = { area = [4, 4, 3, 2] }\n[sheets.box]\ncolour = \"#102030\"\nsize = "
               "[6, 4]\n");
  {
    vole::Catalog both(folder.path());
    CHECK(both.get<vole::Sheet>("pot")->frames[0].size == IVec2{3, 2});
    CHECK(both.get<vole::Sheet>("lid")->frames[0].size == IVec2{5, 5});
    CHECK(both.get<vole::Sheet>("box")->frames[0].size == IVec2{6, 4});
    CHECK(both.get<vole::Sheet>("box")->stand_in);
  }
  std::filesystem::remove(folder.path("assets/stock.atlas.toml"));
  folder.write_picture("assets/lid.png", {3, 3});
  CHECK(vole::Catalog(folder.path()).get<vole::Sheet>("lid")->frames[0].size == IVec2{3, 3});
  // The page changes, and the sheet with it.
  folder.write(
      "assets/pack.atlas.toml",
      "pages = [\"pack-1.png\"]\n[sheets.\"deep/seed\"]\nframes = { 0 = { area = [0, 0, 2, 2] } }\n");
  vole::Report report;
  catalog.refresh(report);
  CHECK(seed->frames[0].size == IVec2{2, 2});
  // The loose picture of the same name has come to light.
  CHECK(catalog.get<vole::Sheet>("lid")->frames[0].size == IVec2{3, 3});
  // It has no loose picture, so the last good version stays.
  folder.write("assets/pack.atlas.toml",
               "pages = [\"pack-1.png\"]\n[sheets.lid.frames]\n0 = { area = [0, 0, 2, 2] }\n");
  vole::Report gone;
  catalog.refresh(gone);
  CHECK(has(gone.problems().at(0).text, "holds no sheet \"deep/seed\" any more"));
  CHECK(seed->frames[0].size == IVec2{2, 2});
  folder.write("assets/pack.atlas.toml", "pages = []\nsheets = { a = {} }\n");
  CHECK(error_of([&] { vole::Catalog(folder.path()).get<vole::Atlas>("pack"); }, folder) ==
        "assets/pack.atlas.toml:2:12: error: sheet \"a\" has no frames");
}

TEST_CASE("a folder that changes while it is read gives what is there, or an Error") {
  TempFolder folder;
  for (int i = 0; i < 40; ++i)
    folder.write_picture(std::string("assets/a/p").append(std::to_string(i)).append(".png"), {4, 4});
  folder.write("assets/a.sheet.toml", "folder = \"a\"\n");
  std::atomic<bool> over{false};
  std::thread troublemaker([&] {
    for (int round = 0; !over; ++round) {
      std::error_code ignored;
      const auto from = folder.path("assets/a"), to = folder.path("assets/b");
      std::filesystem::rename(round % 2 == 0 ? from : to, round % 2 == 0 ? to : from, ignored);
      std::filesystem::remove(
          folder.path(std::string("assets/a/p").append(std::to_string(round % 40)).append(".png")), ignored);
      if (round % 40 == 39)
        for (int i = 0; i < 40; ++i)
          vole::write_whole(folder.path(std::string("assets/a/p").append(std::to_string(i)).append(".png")),
                            vole::encode_png(vole::Image({4, 4})));
    }
  });
  int good = 0, bad = 0;
  for (int round = 0; round < 60; ++round) {
    try {
      vole::Catalog catalog(folder.path());
      const auto sheet = catalog.get<vole::Sheet>("a");
      ++good;
      REQUIRE(sheet->frames.size() == sheet->frame_names.size());
    } catch (const vole::Error& error) {
      ++bad;
      REQUIRE(std::string_view(error.what()).size() > 10);
    }
  }
  over = true;
  troublemaker.join();
  CHECK(good + bad == 60);
}

TEST_CASE("a wrong letter case is named as such") {
  TempFolder folder;
  folder.write_picture("assets/Vole.png", {4, 4});
  vole::Catalog catalog(folder.path());
  CHECK(error_of([&] { catalog.get<vole::Sheet>("vole"); }, folder) ==
        "error: no sheet \"vole\"; it is written \"Vole\", and letter case counts");
}

TEST_CASE("what is dropped comes back when it is looked at, and what is used is not dropped") {
  TempFolder folder;
  write_small_game(folder);
  vole::Catalog catalog(folder.path());
  const auto mouse = catalog.get<vole::Sheet>("mouse");
  const auto held = mouse.shared();
  const auto nothing = [](std::string_view, std::string_view) { return false; };
  catalog.drop_unused(nothing);
  CHECK(catalog.is_loaded<vole::Sheet>("mouse"));
  CHECK(catalog.is_loaded<vole::Picture>("mouse"));
  const vole::Picture* const picture = held->pictures[0].get();
  CHECK(catalog.get<vole::Picture>("mouse").shared().get() == picture);
  {
    const auto given_up = catalog.get<vole::Sheet>("soil");
    catalog.drop_unused(nothing);
    CHECK_FALSE(catalog.is_loaded<vole::Sheet>("soil"));
    CHECK_FALSE(catalog.is_loaded<vole::Picture>("soil"));
    CHECK(given_up->frames.size() == 1);
    CHECK(catalog.is_loaded<vole::Sheet>("soil"));
  }
}
