// Sprites as a game shows them: packed frames, boxes, backgrounds, runs, and things that hang from points.
#include <set>

#include "sheet_stage.hpp"
#include "test_stage.hpp"
#include "vole/app/game.hpp"
#include "vole/asset/sheet.hpp"
#include "vole/draw/raster.hpp"

namespace {

using vole::Colour;
using vole::DrawList;
using vole::Entity;
using vole::Image;
using vole::IRect;
using vole::IVec2;
using vole::Rect;
using vole::Vec2;

constexpr Colour ground{0x3f, 0x5a, 0x36, 0xff};

template <class Fill>
Image drawn(IVec2 size, IVec2 corner, const Fill& fill) {
  DrawList list;
  list.start(size);
  fill(list, list.add_layer(corner));
  list.sort();
  Image image(size, ground);
  vole::Raster().draw(list, image);
  return image;
}

int whole(vole::Random& chance, int least, int most) {
  return least + static_cast<int>(chance.below(static_cast<std::uint32_t>(most - least + 1)));
}

Image noise(vole::Random& chance, IVec2 size, float holes) {
  Image image(size);
  for (int y = 0; y < size.y; ++y)
    for (int x = 0; x < size.x; ++x)
      if (!chance.chance(holes))
        image.at(x, y) = {static_cast<std::uint8_t>(chance.below(256)),
                          static_cast<std::uint8_t>(chance.below(256)),
                          static_cast<std::uint8_t>(chance.below(256)), 255};
  return image;
}

// A sheet of one frame, all of a picture.
vole::Sheet sheet_of(const Image& image, const vole::Borders& borders = {}) {
  vole::Sheet sheet;
  sheet.pictures.push_back(std::make_shared<const vole::Picture>(image));
  sheet.frames.push_back(vole::frame_of(*sheet.pictures[0], sheet.pictures[0]->area()));
  sheet.frame_size = image.size();
  sheet.borders = borders;
  return sheet;
}

struct Small : SheetStage {
  Small()
      : SheetStage(
            "pivot = \"bottom\"\n[clips.run]\nframes = [0, 1, 2]\nfps = 12\n"
            "[points.paw]\nat = [7, 5]\nframes = { 1 = [6, 3] }\n",
            "[lantern]\nsprite = { sheet = \"lantern\" }\n[crumb]\nbody = { size = [4, 4] }\n"
            "[ring]\nsprite = { sheet = \"mouse\" }\ncarries = { paw = \"ring\" }\n"
            "[fool]\nsprite = { sheet = \"mouse\" }\ncarries = { pw = \"lantern\" }\n",
            "carries = { paw = \"lantern\" }\n") {
    folder.write_picture("assets/lantern.png", {4, 6}, {0xed, 0xa6, 0x3f, 0xff});
    folder.write("assets/lantern.sheet.toml", "pivot = \"top\"\npoints = { flame = { at = [2, 4] } }\n");
  }
};

}  // namespace

TEST_CASE("a frame without its borders is drawn where the whole one was, mirrored and turned as well") {
  vole::Random chance(77);
  for (int round = 0; round < 400; ++round) {
    const IVec2 size{whole(chance, 3, 14), whole(chance, 3, 14)};
    Image image(size);
    const IRect ink{{whole(chance, 0, size.x - 2), whole(chance, 0, size.y - 2)}, {2, 2}};
    for (int y = 0; y < 2; ++y)
      for (int x = 0; x < 2; ++x)
        image.at(ink.left() + x, ink.top() + y) = {static_cast<std::uint8_t>(50 * x + 90), 200,
                                                   static_cast<std::uint8_t>(60 * y), 255};
    const vole::Picture picture(image);
    vole::Frame entire = vole::frame_of(picture, picture.area());
    entire.pivot = {whole(chance, -3, size.x + 3), whole(chance, -3, size.y + 3)};
    vole::Frame cut = entire;
    cut.area = ink;
    cut.offset = ink.at;
    cut.alpha = vole::Alpha::opaque;
    const bool mirrored = chance.chance(0.5f), upside_down = chance.chance(0.5f);
    const float turn = chance.chance(0.5f) ? 0.0f : chance.within(-400, 400);
    const Vec2 scale = chance.chance(0.5f) ? Vec2{1, 1} : Vec2{2, 3};
    const auto picture_of = [&](const vole::Frame& frame) {
      return drawn({60, 60}, {0, 0}, [&](DrawList& list, vole::LayerId layer) {
        vole::PictureItem item = vole::show(frame, {30, 30});
        item.mirrored = mirrored;
        item.upside_down = upside_down;
        item.rotation = turn;
        item.scale = scale;
        list.add(layer, item);
      });
    };
    REQUIRE(picture_of(entire) == picture_of(cut));
  }
}

TEST_CASE("a box keeps its corners, repeats what is between, and fills itself to the pixel") {
  vole::Random chance(5);
  for (int round = 0; round < 300; ++round) {
    const IVec2 size{whole(chance, 3, 9), whole(chance, 3, 9)};
    const Image image = noise(chance, size, 0);
    vole::Borders borders{whole(chance, 0, 2), whole(chance, 0, 2), whole(chance, 0, 2), whole(chance, 0, 2),
                          false};
    if (borders.left + borders.right >= size.x) borders.right = 0;
    if (borders.top + borders.bottom >= size.y) borders.bottom = 0;
    const IRect box{{whole(chance, -4, 8), whole(chance, -4, 8)},
                    {whole(chance, borders.left + borders.right + 1, 40),
                     whole(chance, borders.top + borders.bottom + 1, 30)}};
    const vole::Sheet sheet = sheet_of(image, borders);
    const Image out = drawn({48, 36}, {3, -2}, [&](DrawList& list, vole::LayerId layer) {
      vole::draw_box(list, layer, sheet, Rect{Vec2(box.at), Vec2(box.size)});
    });
    // Which pixel of a side of the frame a pixel of the box shows.
    const auto from = [](int at, int length, int near, int far, int frame) {
      if (at < near) return at;
      if (at >= length - far) return frame - (length - at);
      return near + (at - near) % (frame - near - far);
    };
    for (int y = 0; y < 36; ++y)
      for (int x = 0; x < 48; ++x) {
        const IVec2 in = IVec2{x + 3, y - 2} - box.at;
        const bool inside = in.x >= 0 && in.y >= 0 && in.x < box.size.x && in.y < box.size.y;
        const Colour expected = inside ? image.at(from(in.x, box.size.x, borders.left, borders.right, size.x),
                                                  from(in.y, box.size.y, borders.top, borders.bottom, size.y))
                                       : ground;
        REQUIRE(out.at(x, y) == expected);
      }
  }
}

TEST_CASE("a stretched box has no gap and no overhang, however far it is stretched") {
  vole::Random chance(6);
  for (int round = 0; round < 100; ++round) {
    const Image image = noise(chance, {6, 6}, 0);
    const vole::Sheet sheet = sheet_of(image, {2, 2, 2, 2, true});
    const IVec2 size{whole(chance, 1, 300), whole(chance, 1, 160)};
    const Image out = drawn({320, 180}, {0, 0}, [&](DrawList& list, vole::LayerId layer) {
      vole::draw_box(list, layer, sheet, {{10, 10}, Vec2(size)});
    });
    for (int y = 0; y < 180; ++y)
      for (int x = 0; x < 320; ++x) {
        const bool inside = x >= 10 && y >= 10 && x < 10 + size.x && y < 10 + size.y;
        REQUIRE((out.at(x, y) != ground) == inside);
      }
    if (size.x >= 4 && size.y >= 4) REQUIRE(out.at(10 + size.x - 1, 10 + size.y - 1) == image.at(5, 5));
  }
}

TEST_CASE("a background goes on for ever, the ways it should") {
  vole::Random chance(9);
  for (int round = 0; round < 200; ++round) {
    const Image image = noise(chance, {whole(chance, 1, 20), whole(chance, 1, 20)}, 0.2f);
    const vole::Sheet sheet = sheet_of(image);
    const IVec2 corner{whole(chance, -300, 300), whole(chance, -300, 300)};
    const IVec2 at{whole(chance, -50, 50), whole(chance, -50, 50)};
    const auto repeat = static_cast<vole::Repeat>(chance.below(4));
    const bool across = repeat == vole::Repeat::across || repeat == vole::Repeat::both;
    const bool down = repeat == vole::Repeat::down || repeat == vole::Repeat::both;
    const Image out = drawn({40, 30}, corner, [&](DrawList& list, vole::LayerId layer) {
      vole::draw_repeated(list, layer, sheet.frames[0], Vec2(at), repeat);
    });
    for (int y = 0; y < 30; ++y)
      for (int x = 0; x < 40; ++x) {
        IVec2 in = IVec2{x, y} + corner - at;
        const auto round_about = [](int value, int length) { return ((value % length) + length) % length; };
        if (across) in.x = round_about(in.x, image.size().x);
        if (down) in.y = round_about(in.y, image.size().y);
        const bool there = image.area().contains(in) && image.at(in.x, in.y).a != 0;
        REQUIRE(out.at(x, y) == (there ? image.at(in.x, in.y) : ground));
      }
  }
}

TEST_CASE("a covering picture leaves no pixel of the canvas open, whatever its shape") {
  vole::Random chance(10);
  for (int round = 0; round < 150; ++round) {
    const vole::Sheet sheet = sheet_of(Image({whole(chance, 1, 400), whole(chance, 1, 400)}, vole::white));
    const Image out = drawn(
        {whole(chance, 16, 330), whole(chance, 16, 200)}, {whole(chance, -99, 99), 17},
        [&](DrawList& list, vole::LayerId layer) { vole::draw_covering(list, layer, sheet.frames[0]); });
    for (int y = 0; y < out.size().y; ++y)
      for (int x = 0; x < out.size().x; ++x) REQUIRE(out.at(x, y) == vole::white);
  }
}

TEST_CASE("items that share layer, picture and blend are one run, and are counted") {
  const vole::Sheet a = sheet_of(Image({2, 2}, vole::white)), b = sheet_of(Image({2, 2}, ground));
  DrawList list;
  list.start({64, 32});
  const auto back = list.add_layer({0, 0}), front = list.add_layer({0, 0});
  for (int i = 0; i < 10; ++i) list.add(back, vole::show(a.frames[0], {4, 4}));
  for (int i = 0; i < 5; ++i) list.add(back, vole::show(b.frames[0], {4, 4}));
  list.add(front, vole::show(b.frames[0], {4, 4}));
  vole::PictureItem glow = vole::show(b.frames[0], {4, 4});
  glow.blend = vole::Blend::add;
  list.add(front, glow);
  list.add(front, glow);
  list.sort();
  CHECK(list.items().size() == 18);
  REQUIRE(list.runs().size() == 4);
  CHECK(list.runs()[0].count == 10);
  CHECK(list.runs()[3].first == 16);
  CHECK(list.runs()[3].count == 2);
}

TEST_CASE("a lantern is attached to the paw: mirrored, turned, scaled and frame by frame") {
  Small small;
  vole::Stage& stage = *small.stage;
  const Entity mouse = stage.spawn("mouse", {20, 20});
  const Entity lantern = stage.first("lantern");
  REQUIRE(lantern);
  const auto hangs_at = [&] {
    small.tick();
    return stage.get<vole::Pose>(lantern).at;
  };
  // The paw is at 7, 5 and the pivot at 4, 8.
  CHECK(hangs_at() == Vec2{23, 17});
  stage.get<vole::Pose>(mouse).mirrored = true;
  CHECK(hangs_at() == Vec2{17, 17});
  stage.get<vole::Pose>(mouse).mirrored = false;
  auto& sprite = stage.get<vole::Sprite>(mouse);
  sprite.scale = {2, 2};
  CHECK(hangs_at() == Vec2{26, 14});
  sprite.rotation = 90;
  CHECK(hangs_at() == Vec2{26, 26});
  CHECK(small.drawn(1).rotation == 90);
  sprite.scale = {1, 1};
  sprite.rotation = 0;
  sprite.play("run");
  for (int i = 0; i < 5; ++i) hangs_at();
  CHECK(hangs_at() == Vec2{22, 15});  // frame 1 has its paw at 6, 3
  // What is drawn between two ticks hangs from what is drawn, not from where it will be.
  stage.get<vole::Pose>(mouse).before = {0, 20};
  DrawList list;
  list.start({64, 32});
  small.running->draw(list, 0.5f);
  CHECK(list.items()[1].picture.at == Vec2{12 + 32, 15 + 16});
}

TEST_CASE("what is carried leaves with its carrier, and what was hung by hand stays") {
  Small small;
  vole::Stage& stage = *small.stage;
  const Entity mouse = stage.spawn("mouse", {20, 20});
  const Entity spare = stage.spawn("lantern", {0, 0});
  stage.get<vole::Pose>(mouse).before = {0, 0};  // it is attached where the mouse is now, not where it was
  stage.attach(spare, mouse, "paw", {0, 2});
  CHECK(stage.get<vole::Pose>(spare).at == Vec2{23, 19});
  CHECK(stage.count("lantern") == 2);
  stage.remove(mouse);
  small.tick();
  CHECK(stage.count("lantern") == 1);
  small.tick();
  CHECK(stage.get<vole::Pose>(spare).at == Vec2{23, 19});
  stage.detach(spare);
  CHECK_FALSE(stage.entities().has<vole::Attached>(spare));
}

TEST_CASE("rings of things attached to each other are refused, and wrong points are named") {
  Small small;
  vole::Stage& stage = *small.stage;
  const auto said = [&](const auto& work) { return error_of(work, small.folder); };
  const Entity a = stage.spawn("lantern", {0, 0}), b = stage.spawn("lantern", {0, 0});
  stage.attach(a, b, "flame");
  CHECK(said([&] { stage.attach(b, a, "flame"); }) == "error: two things cannot be attached to each other");
  CHECK(said([&] { stage.attach(a, a, "flame"); }) == "error: two things cannot be attached to each other");
  Entity last = b;
  for (int i = 1; i < vole::most_attached_in_a_row; ++i) {
    const Entity next = stage.spawn("lantern", {0, 0});
    stage.attach(next, last, "flame");
    last = next;
  }
  CHECK_NOTHROW(stage.attach(stage.spawn("lantern", {0, 0}), last, "flame"));
  last = stage.first("lantern");
  stage.entities().visit<vole::Attached>([&](Entity entity, const vole::Attached&) { last = entity; });
  CHECK(said([&] {
          stage.attach(stage.spawn("lantern", {0, 0}), last, "flame");
        }) == "error: at most 256 things can be attached in a row");
  // A ring that no call of attach made, as in a broken state, is drawn all the same.
  stage.get<vole::Attached>(a).to = last;
  small.drawn();
  CHECK(said([&] {
          stage.attach(stage.spawn("crumb", {0, 0}), last, "flame");
        }) == "error: at most 256 things can be attached in a row");
  CHECK(said([&] {
          stage.attach(b, stage.spawn("crumb", {0, 0}), "flame");
        }).find("without a sprite") != std::string::npos);
  CHECK(said([&] {
          stage.spawn("ring", {0, 0});
        }).find("kinds.toml:12:19: error: \"ring\" carries something that carries it") == 0);
  CHECK(said([&] {
          stage.spawn("fool", {0, 0});
        }) == "kinds.toml:15:13: error: no point \"pw\" in \"mouse\"; did you mean \"paw\"?");
  CHECK(stage.count("ring") == 0);
  CHECK(stage.count("fool") == 0);
}

TEST_CASE("lower feet are drawn over higher ones, where a layer says so") {
  Small small;
  std::string level = vole::read_text(small.folder.path("levels/patch.level.toml"), 1 << 20);
  level.replace(level.find("name = \"things\""), 15, "name = \"things\"\norder = \"feet\"");
  level.erase(level.find("[[places]]"));
  small.folder.write("levels/patch.level.toml", level);
  small.start();
  small.stage->load_level("patch");
  const Entity low = small.stage->spawn("lantern", {20, 25});
  small.stage->spawn("mouse", {20, 20});
  DrawList list;
  list.start({64, 32});
  small.running->draw(list, 1);
  list.sort();
  CHECK(list.items().back().picture.picture ==
        small.stage->get<vole::Sprite>(low).sheet()->pictures[0].get());
  // Scenes draw into a level's layer by its name.
  CHECK(small.stage->level().layer("things") == 1);
  CHECK(error_of([&] { small.stage->level().layer("thngs"); }, small.folder) ==
        "error: no layer \"thngs\" in level \"patch\"; did you mean \"things\"?");
}

namespace names {
struct mouse {
  static constexpr vole::SheetName name{{"mouse"}};
  struct clip {
    static constexpr vole::ClipName<mouse> run{{"run"}};
  };
};
struct lantern {
  static constexpr vole::SheetName name{{"lantern"}};
  struct clip {
    static constexpr vole::ClipName<lantern> glow{{"glow"}};
  };
};
}  // namespace names

template <class Look, class Clip>
concept Plays = requires(Look look, Clip clip) {
  look.play(clip);
};

TEST_CASE("a clip of another sheet does not compile, or is reported at once") {
  STATIC_REQUIRE(Plays<vole::SpriteOf<names::mouse>, vole::ClipName<names::mouse>>);
  STATIC_REQUIRE_FALSE(Plays<vole::SpriteOf<names::mouse>, vole::ClipName<names::lantern>>);
  Small small;
  auto& sprite = small.stage->get<vole::Sprite>(small.stage->spawn("mouse", {0, 0}));
  vole::SpriteOf<names::mouse>(sprite).play(names::mouse::clip::run);
  CHECK(sprite.playhead().clip()->name == "run");
  sprite.play(names::mouse::clip::run);
  CHECK(error_of([&] { sprite.play(names::lantern::clip::glow); }, small.folder) ==
        "error: this sprite shows the sheet \"mouse\", not \"lantern\"; the clip belongs to another sheet");
  CHECK_THROWS_AS(vole::SpriteOf<names::lantern>(sprite), vole::Error);
}

TEST_CASE(
    "a sprite that code adds is bound at the next tick, as one of a kind is, and until then is an error") {
  TestStage test;
  TempFolder folder;
  write_small_game(folder);
  vole::Stage& stage = test.start(folder);
  const vole::Entity thing = stage.entities().create();
  stage.entities().add(thing, vole::Pose{{10, 10}, {10, 10}});
  vole::Sprite added;
  added.sheet_name.value = "mouse";
  stage.entities().add(thing, added);
  vole::Sprite& sprite = stage.get<vole::Sprite>(thing);
  CHECK(sprite.frame(60) == -1);
  CHECK_THROWS_WITH(sprite.play("walk"), Catch::Contains("plays nothing yet"));
  CHECK_THROWS_WITH(sprite.play("ways", "left"), Catch::Contains("plays nothing yet"));
  CHECK_THROWS_WITH(sprite.set_fact("hurt", 1), Catch::Contains("plays nothing yet"));
  CHECK_THROWS_WITH(sprite.play_track("squash"), Catch::Contains("plays nothing yet"));
  sprite.face({1, 0});
  sprite.stop();
  const vole::StateBytes before = test.state();
  test.tick();
  vole::Sprite& bound = stage.get<vole::Sprite>(thing);
  REQUIRE(bound.sheet() != nullptr);
  CHECK(bound.sheet()->name == "mouse");
  CHECK(bound.frame(60) == 0);
  bound.play_track(vole::tracks::squash());
  test.tick(3);
  const vole::StateBytes end = test.state();
  // The same from the state of before.
  vole::StateReader in(before);
  test.running->read(in);
  test.running->bind();
  test.tick();
  stage.get<vole::Sprite>(thing).play_track(vole::tracks::squash());
  test.tick(3);
  CHECK(test.state() == end);
  // Another sheet by its name, from the next tick on.
  folder.write("assets/crumb.sheet.toml", "colour = \"#c8b68e\"\nsize = [4, 4]\n");
  stage.get<vole::Sprite>(thing).sheet_name.value = "crumb";
  test.tick();
  CHECK(stage.get<vole::Sprite>(thing).sheet()->name == "crumb");
}

TEST_CASE(
    "a sheet that is refused for one bad track is taken by no sprite, and reported once for all of them") {
  TestStage test;
  TempFolder folder;
  write_small_game(folder);
  vole::Stage& stage = test.start(folder);
  stage.load_level("patch");
  for (int i = 0; i < 5; ++i) stage.spawn("mouse", {10, 10});
  test.tick();
  const auto shown = [&] {
    std::set<const vole::Sheet*> all;
    stage.entities().visit<vole::Sprite>(
        [&](vole::Entity, vole::Sprite& sprite) { all.insert(sprite.sheet()); });
    return all;
  };
  const std::set<const vole::Sheet*> before = shown();
  REQUIRE(before.size() == 1);
  const std::string good = vole::read_text(folder.path("assets/mouse.sheet.toml"), 1 << 20);
  const auto change = [&](const std::string& text) {
    folder.write("assets/mouse.sheet.toml", text);
    vole::Report report;
    test.catalog->refresh(report);
    CHECK(report.problems().empty());
  };
  const std::string track =
      "\n[tracks.odd.fields]\n\"body.sise\" = [{ at = 0, value = [1, 1] }, { at = 1, value = [2, 2] }]\n";
  change(good + track);
  CHECK_THROWS_WITH(
      test.tick(),
      Catch::Contains("\"body\" has no number, pair or colour \"sise\"; did you mean \"size\"?"));
  CHECK(shown() == before);
  test.tick(3);
  CHECK(shown() == before);
  change(good + "\n# as it should be\n");
  test.tick();
  CHECK(shown().size() == 1);
  CHECK(shown() != before);
}
