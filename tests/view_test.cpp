// What cameras show when they are nearer or further off, against each pixel on its own.
#include "vole/draw/view.hpp"

#include <cmath>
#include <limits>

#include "test_stage.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/writing.hpp"
#include "vole/draw/background.hpp"
#include "vole/draw/camera.hpp"
#include "vole/draw/raster.hpp"

namespace {

using vole::Camera;
using vole::Colour;
using vole::Image;
using vole::IRect;
using vole::IVec2;
using vole::Rect;
using vole::Vec2;

constexpr IRect world{{-40, -40}, {240, 180}};

// Two whole numbers in this order, whatever the compiler.
IVec2 drawn(vole::Random& chance, IVec2 below_these) {
  const int x = below(chance, below_these.x);
  const int y = below(chance, below_these.y);
  return {x, y};
}

bool near(Vec2 a, Vec2 b, float by) {
  return std::abs(a.x - b.x) < by && std::abs(a.y - b.y) < by;
}

// A level's worth of boxes, and one that is at another parallax.
struct Boxes {
  std::vector<std::pair<Rect, Colour>> near, far;

  explicit Boxes(vole::Random& chance) {
    for (auto* boxes : {&far, &near})
      for (int i = 0; i < 60; ++i) {
        const Vec2 at{chance.within(-40, 200), chance.within(-40, 140)};
        const Vec2 size{chance.within(1, 30), chance.within(1, 30)};
        const auto shade = [&chance] { return static_cast<std::uint8_t>(chance.within(0, 255)); };
        const std::uint8_t red = shade(), green = shade();
        boxes->push_back({{at, size}, {red, green, 90, 255}});
      }
  }
  void add(vole::DrawList& list, IVec2 far_corner, IVec2 near_corner) const {
    const vole::LayerId behind = list.add_layer(far_corner);
    for (const auto& [box, colour] : far) list.fill(behind, box, colour);
    const vole::LayerId before = list.add_layer(near_corner);
    for (const auto& [box, colour] : near) list.fill(before, box, colour);
  }
  // All of it, one pixel for one.
  Image whole(IVec2 far_corner, IVec2 near_corner) const {
    vole::DrawList list;
    list.start(world.size);
    add(list, far_corner, near_corner);
    list.sort();
    Image image(world.size, vole::white);
    vole::Raster().draw(list, image);
    return image;
  }
};

Image shown(const Boxes& boxes, const Camera& camera, Vec2 parallax, IVec2 canvas) {
  vole::DrawList list;
  list.start(canvas);
  vole::View view = camera.view(1);
  view.sky = vole::white;
  list.start_view(view);
  boxes.add(list, camera.corner(parallax, 1), camera.corner({1, 1}, 1));
  list.end_view();
  const vole::LayerId above = list.add_layer({0, 0});
  list.fill(above, {{1, 1}, {2, 2}}, {255, 0, 0, 255});
  list.sort();
  Image image(canvas, {0, 0, 0, 255});
  vole::Raster().draw(list, image);
  return image;
}

}  // namespace

TEST_CASE("at any zoom each pixel shows the level's pixel under its middle") {
  vole::Random chance(21);
  for (int i = 0; i < cases(40); ++i) {
    const Boxes boxes(chance);
    const IVec2 canvas = IVec2{20, 20} + drawn(chance, {60, 40});
    const IVec2 at = drawn(chance, {9, 9}), less = drawn(chance, {9, 9});
    const IRect part{at, canvas - at - less};
    Camera camera;
    camera.at = part.at;
    camera.canvas = part.size;
    camera.zoom = i % 3 == 0 ? static_cast<float>(1 + below(chance, 4)) : chance.within(0.7f, 6);
    const float x = chance.within(40, 100), y = chance.within(40, 80);
    camera.jump_to({x, y});
    const IVec2 middle{vole::to_pixel(camera.middle().x), vole::to_pixel(camera.middle().y)};
    const Image image = shown(boxes, camera, {1, 1}, canvas);
    const Image whole = boxes.whole(world.at, world.at);
    for (int py = 0; py < canvas.y; ++py)
      for (int px = 0; px < canvas.x; ++px) {
        const bool label = IRect{{1, 1}, {2, 2}}.contains({px, py});
        if (label || !part.contains({px, py})) {
          CHECK(image.at(px, py) == (label ? Colour{255, 0, 0, 255} : Colour{0, 0, 0, 255}));
          continue;
        }
        const auto source = [&](int pixel, int length, int in_middle) {
          return in_middle + (pixel + 0.5 - length / 2.0) / static_cast<double>(camera.zoom);
        };
        const double u = source(px - part.left(), part.size.x, middle.x),
                     v = source(py - part.top(), part.size.y, middle.y);
        // On the border of two, rounding decides.
        if (std::abs(u - std::round(u)) < 1e-4 || std::abs(v - std::round(v)) < 1e-4) continue;
        const IVec2 pixel =
            IVec2{static_cast<int>(std::floor(u)), static_cast<int>(std::floor(v))} - world.at;
        INFO(i << ": " << px << ", " << py << " at zoom " << camera.zoom);
        REQUIRE(image.at(px, py) == whole.at(pixel.x, pixel.y));
      }
  }
}

TEST_CASE(
    "a layer of another parallax keeps its place in the middle of the canvas when the camera comes nearer") {
  vole::Random chance(22);
  for (int i = 0; i < 200; ++i) {
    Camera camera;
    camera.canvas = {64, 36};
    camera.jump_to({chance.within(0, 400), chance.within(0, 300)});
    const Vec2 parallax{chance.within(0, 2), chance.within(0, 2)};
    const IVec2 middle = camera.corner(parallax, 1) + camera.canvas / 2;
    camera.zoom = static_cast<float>(1 << below(chance, 4));
    camera.jump_to(camera.middle());
    CHECK(camera.corner(parallax, 1) + camera.view(1).size / 2 == middle);
  }
}

TEST_CASE("a camera keeps what it shows inside its bounds at any zoom") {
  vole::Random chance(23);
  for (int i = 0; i < 500; ++i) {
    Camera camera;
    camera.canvas = {64, 36};
    camera.bounds = {{-100, -50}, {500, 400}};
    camera.zoom = chance.within(0.2f, 4);
    camera.smoothing = chance.chance(0.5f) ? 0.2f : 0;
    camera.jump_to({chance.within(-300, 700), chance.within(-300, 700)});
    for (int tick = 0; tick < 20; ++tick) {
      camera.zoom = std::max(camera.zoom * 0.95f, 0.15f);
      camera.follow({chance.within(-300, 700), chance.within(-300, 700)}, 1.0f / 60);
      const Rect seen = camera.seen();
      // To the pixel that a corner is rounded to.
      CHECK(seen.left() >= camera.bounds.left() - 1);
      CHECK(seen.top() >= camera.bounds.top() - 1);
      CHECK(seen.right() <= camera.bounds.right() + 1);
      CHECK(seen.bottom() <= camera.bounds.bottom() + 1);
    }
  }
}

TEST_CASE("points of the canvas are found in the level and back, and a zoom keeps the one it is about") {
  vole::Random chance(24);
  for (int i = 0; i < 500; ++i) {
    Camera camera;
    camera.zoom = chance.within(0.2f, 8);
    camera.jump_to({chance.within(-300, 700), chance.within(-300, 700)});
    const Vec2 point{chance.within(0, 320), chance.within(0, 180)};
    const Vec2 in_level = camera.to_level(point);
    CHECK(near(camera.to_canvas(in_level), point, 0.01f));
    camera.zoom_about(in_level, chance.within(0.2f, 8));
    // To the pixel that the picture lies on.
    CHECK(near(camera.to_canvas(in_level), point, 0.51f * camera.zoom));
  }
  // As what is drawn has it.
  Camera camera;
  camera.zoom = 4;
  camera.jump_to({100, 50});
  CHECK(camera.to_level({0, 0}) == Vec2(camera.corner({1, 1}, 1)) + Vec2{0, 0.5f});
  CHECK(camera.seen() == Rect{{60, 27}, {80, 45}});
}

TEST_CASE("between two ticks the zoom is between theirs") {
  Camera camera;
  camera.jump_to({100, 50});
  camera.zoom = 3;
  CHECK(camera.view(1).zoom == 1);  // from the next tick on
  camera.follow({100, 50}, 1.0f / 60);
  CHECK(camera.view(0).zoom == 1);
  CHECK(camera.view(0.5f).zoom == 2);
  CHECK(camera.view(1).zoom == 3);
  camera.stay();
  CHECK(camera.view(0).zoom == 3);
}

TEST_CASE("a camera that has nothing to follow any more stands still between ticks too") {
  Camera camera;
  camera.jump_to({100, 50});
  camera.follow({140, 50}, 1.0f / 60);
  CHECK(camera.corner({1, 1}, 0).x != camera.corner({1, 1}, 1).x);
  camera.stay();
  CHECK(camera.corner({1, 1}, 0) == camera.corner({1, 1}, 1));
}

TEST_CASE("whatever numbers a camera is given, what it draws is no larger than a view may be") {
  const float infinite = std::numeric_limits<float>::infinity();
  for (const float zoom : {0.0f, -2.0f, 1e-30f, 1e30f, std::nanf(""), infinite})
    for (const IVec2 canvas : {IVec2{64, 36}, IVec2{1, 1}, IVec2{16384, 9}, IVec2{1'000'000'000, -7}}) {
      Camera camera;
      camera.canvas = canvas;
      camera.at = {std::numeric_limits<int>::max(), -canvas.x};
      camera.zoom = zoom;
      camera.jump_to({50, infinite});
      CHECK(camera.view(1).part.size.x <= 32768);
      if (!std::isnan(zoom)) camera.zoom_over(zoom, 1e-30f);
      camera.shake(infinite, 1e-30f);
      CHECK_THROWS_AS(camera.follow({infinite, std::nanf("")}, 1.0f / 60), vole::Error);
      camera.follow({infinite, -3e38f}, 1.0f / 60);
      const vole::View view = camera.view(1);
      CHECK(view.size.x <= 4096);
      CHECK(view.size.y <= 4096);
      CHECK(view.zoom >= Camera::least_zoom);
      CHECK(view.zoom <= Camera::most_zoom);
      Image image({64, 36});
      put_view(Image(view.size, vole::white), view, image);
    }
}

TEST_CASE("a camera closes in at the same pace at any rate of ticks, and half of the way in its time") {
  vole::Random chance(25);
  for (int i = 0; i < 50; ++i) {
    const float smoothing = chance.within(0.02f, 1);
    std::vector<float> ends;
    for (const int rate : {30, 60, 144, 1000}) {
      Camera camera;
      camera.smoothing = smoothing;
      camera.jump_to({0, 0});
      for (int tick = 0; tick < rate; ++tick) camera.follow({1000, -500}, 1.0f / static_cast<float>(rate));
      ends.push_back(camera.middle().x);
      CHECK(camera.middle().y == Approx(-camera.middle().x / 2));
    }
    for (const float end : ends)
      CHECK(end == Approx(1000 * (1 - std::pow(0.5, 1.0 / static_cast<double>(smoothing)))).margin(0.2));
  }
}

TEST_CASE("neither what is followed nor the level trembles") {
  vole::Random chance(26);
  int still = 0, steady = 0;
  for (int round = 0; round < 60; ++round) {
    Camera camera;
    camera.canvas = {64 + below(chance, 3), 36};
    camera.smoothing = chance.chance(0.5f) ? 0.0f : 0.15f;
    camera.offset = {chance.within(-9, 9), chance.within(-9, 9)};
    if (chance.chance(0.5f)) camera.slack = {chance.within(0, 9), chance.within(0, 9)};
    if (chance.chance(0.5f)) camera.bounds = {{0, 0}, {900, 300}};
    Vec2 at{chance.within(200, 400), chance.within(100, 200)}, velocity{0, 0};
    camera.jump_to(at);
    int kept_up = 0;
    for (int tick = 0; tick < 400; ++tick) {
      if (tick % 100 == 0) {
        velocity = {chance.within(-2, 2), 0};
        kept_up = 0;
      }
      const Vec2 before = at, middle = camera.middle();
      const IVec2 last = camera.corner({1, 1}, 1);
      const auto on_canvas = [&](Vec2 thing, float share) {
        return IVec2{vole::to_pixel(thing.x), vole::to_pixel(thing.y)} - camera.corner({1, 1}, share);
      };
      const IVec2 was = on_canvas(at, 1);
      at += velocity;
      camera.follow(vole::CameraTarget{at, before, velocity * 60.0f, 1, {0, 0}}, 1.0f / 60);
      const bool stands = camera.middle() == middle;
      // Behind it at the same distance as in the tick before: then it must not move on the canvas at all.
      const Vec2 pace = camera.middle() - middle - velocity;
      kept_up = std::abs(pace.x) < 0.001f && !stands ? kept_up + 1 : 0;
      CAPTURE(round, tick);
      for (const float share : {0.0f, 0.3f, 0.5f, 0.9f, 1.0f}) {
        const IVec2 corner = camera.corner({1, 1}, share);
        const Vec2 shown = middle + (camera.middle() - middle) * share - Vec2(camera.canvas / 2);
        REQUIRE(std::abs(static_cast<float>(corner.x) - shown.x) < 2.01f);
        if (stands && std::abs(static_cast<float>(last.x) - shown.x) < 1) REQUIRE(corner.x == last.x);
        if (kept_up > 2) REQUIRE(on_canvas(before + (at - before) * share, share).x == was.x);
      }
      still += stands ? 1 : 0;
      steady += kept_up > 2 ? 1 : 0;
    }
  }
  CHECK(still > 1000);
  CHECK(steady > 1000);
}

TEST_CASE("several things that are followed are kept in view as far as the zoom may go") {
  vole::Random chance(27);
  for (int round = 0; round < 100; ++round) {
    Camera camera;
    camera.canvas = {160, 90};
    camera.smoothing = 0.05f;
    camera.zoom = 2;
    camera.farthest = 0.25f;
    camera.margin = 10;
    Rect box{{chance.within(0, 300), chance.within(0, 300)}, {chance.within(1, 600), chance.within(1, 300)}};
    for (int tick = 0; tick < 300; ++tick)
      camera.follow({box.at + box.size * 0.5f, box.at, {0, 0}, 0, box.size}, 1.0f / 60);
    const Rect seen = camera.seen();
    CHECK(seen.left() <= box.left() - 8);
    CHECK(seen.top() <= box.top() - 8);
    CHECK(seen.right() >= box.right() + 8);
    CHECK(seen.bottom() >= box.bottom() + 8);
    // And no further off than that needs.
    const bool near_enough =
        camera.zoom_now() > 1.99f || seen.size.x < box.size.x + 22 || seen.size.y < box.size.y + 22;
    CHECK(near_enough);
  }
}

TEST_CASE("a camera looks ahead of what it follows, by its speed and to where it faces") {
  Camera camera;
  camera.ahead = 0.5f;
  camera.face_ahead = 20;
  camera.jump_to({100, 50});
  for (int tick = 0; tick < 600; ++tick)
    camera.follow({{100, 50}, {100, 50}, {60, 0}, -1, {0, 0}}, 1.0f / 60);
  CHECK(camera.middle().x == Approx(100 + 30 - 20));
  // It turns softly.
  camera.follow({{100, 50}, {100, 50}, {60, 0}, 1, {0, 0}}, 1.0f / 60);
  CHECK(camera.middle().x < 115);
  for (int tick = 0; tick < 600; ++tick) camera.follow({{100, 50}, {100, 50}, {60, 0}, 1, {0, 0}}, 1.0f / 60);
  CHECK(camera.middle().x == Approx(150));
}

TEST_CASE("a move to other bounds begins where the camera is, ends inside of them, and never jumps") {
  Camera camera;
  camera.canvas = {64, 36};
  camera.bounds = {{0, 0}, {200, 100}};
  camera.jump_to({168, 50});
  camera.move_over({{200, 0}, {200, 100}}, 0.5f);
  float last = camera.middle().x;
  for (int tick = 1; tick <= 40; ++tick) {
    camera.follow({205, 50}, 1.0f / 60);
    CHECK(camera.middle().x >= last);
    CHECK(camera.middle().x - last < 64 / 30.0f * 1.6f);
    CHECK(static_cast<float>(camera.corner({1, 1}, 0.5f).x) ==
          Approx((last + camera.middle().x) / 2 - 32).margin(1.01));
    last = camera.middle().x;
    if (tick == 15) CHECK(last == Approx(200).margin(0.5));
  }
  CHECK(last == 232);
  camera.move_over({{0, 0}, {200, 100}}, 0);
  CHECK(camera.middle().x == 168);
  // A zoom glides evenly.
  camera.zoom_over(3, 1);
  for (int tick = 1; tick <= 60; ++tick) {
    camera.stay(1.0f / 60);
    CHECK(camera.zoom_now() == Approx(1 + 2 * tick / 60.0));
  }
  camera.stay(1.0f / 60);
  CHECK(camera.zoom == 3);
}

TEST_CASE("a shaken camera trembles within its pixels, less and less, and then stands where it stood") {
  Camera camera, other;
  for (Camera* each : {&camera, &other}) {
    each->jump_to({100, 50});
    each->shake(8, 1);
  }
  const IVec2 rest = IVec2{100, 50} - camera.canvas / 2;
  int moved = 0;
  for (int tick = 1; tick <= 70; ++tick) {
    camera.stay(1.0f / 60);
    other.stay(1.0f / 60);
    const IVec2 off = camera.corner({1, 1}, 1) - rest;
    CHECK(other.corner({1, 1}, 1) - rest == off);
    const float most = 8 * std::max(0.0f, 1 - static_cast<float>(tick - 1) / 60) + 0.51f;
    CHECK(std::abs(static_cast<float>(off.x)) <= most);
    CHECK(std::abs(static_cast<float>(off.y)) <= most);
    moved += off != IVec2{0, 0} ? 1 : 0;
    CHECK(camera.middle() == Vec2{100, 50});
    if (tick > 61) CHECK(off == IVec2{0, 0});
  }
  CHECK(moved > 30);
}

TEST_CASE("clips and backgrounds in a view are in its own pixels") {
  vole::DrawList list;
  list.start({64, 36});
  Camera camera;
  camera.canvas = {64, 36};
  camera.zoom = 2;
  camera.jump_to({16, 9});
  vole::View view = camera.view(1);
  view.sky = {1, 2, 3, 255};
  list.start_view(view);
  const vole::LayerId layer = list.add_layer({0, 0});
  CHECK(list.size(layer) == IVec2{32, 18});
  list.clip_to({{4, 4}, {100, 2}});
  list.fill(layer, {{0, 0}, {400, 400}}, {9, 9, 9, 255});
  list.clip_to_canvas();
  list.end_view();
  CHECK(list.items()[0].clip == IRect{{4, 4}, {28, 2}});
  list.sort();
  Image image({64, 36}, vole::white);
  vole::Raster raster;
  raster.draw(list, image);
  CHECK(image.at(8, 8) == Colour{9, 9, 9, 255});
  CHECK(image.at(63, 11) == Colour{9, 9, 9, 255});
  CHECK(image.at(8, 12) == view.sky);
  CHECK(image.at(7, 8) == view.sky);
  if (!allocations_are_counted()) return;
  const std::int64_t before = allocations_so_far();
  raster.draw(list, image);
  CHECK(allocations_so_far() == before);
}

namespace {

// A level of many tiles with things that wander, on a canvas of 64 x 32.
struct Town : TestStage {
  TempFolder folder;
  vole::Raster raster;

  Town() {
    write_small_game(folder);
    vole::Random chance(61);
    std::string rows;
    for (int y = 0; y < 30; ++y) {
      rows += "\"";
      for (int x = 0; x < 40; ++x) rows += chance.chance(0.3f) ? '#' : '.';
      rows += "\",\n";
    }
    folder.write("kinds.toml",
                 "[mouse]\nsprite = { sheet = \"mouse\", clip = \"run\", layer = \"things\" }\n"
                 "[lamp]\nlamp = { radius = 20, shadows = false }\n");
    folder.write(
        "levels/town.level.toml",
        "tileset = \"soil\"\nletters = { \".\" = \"\", \"#\" = \"soil\" }\nsky = \"#204060\"\n[light]\n"
        "darkness = 0.6\n[[layers]]\nname = \"ground\"\nrows = [\n" +
            rows +
            "]\n[[layers]]\nname = \"things\"\n[[places]]\nkind = \"lamp\"\nat = [150, 100]\n"
            "[[zones]]\nname = \"square\"\narea = [80, 80, 120, 100]\n");
    start(folder).load_level("town");
    for (int i = 0; i < 20; ++i) {
      const float x = chance.within(0, 320), y = chance.within(0, 240);
      running->stage().spawn("mouse", {x, y});
    }
  }
  Image picture(IVec2 canvas) {
    vole::DrawList list;
    list.start(canvas);
    running->draw(list, 1);
    list.sort();
    Image image(canvas, running->sky());
    raster.draw(list, image);
    return image;
  }
};

Image part_of(const Image& image, const IRect& part) {
  Image cut(part.size);
  for (int y = 0; y < part.size.y; ++y)
    for (int x = 0; x < part.size.x; ++x) cut.at(x, y) = image.at(part.left() + x, part.top() + y);
  return cut;
}

}  // namespace

TEST_CASE("each of several views shows what a camera of its own would show alone") {
  Town town;
  vole::Stage& stage = town.running->stage();
  const vole::Entity first = stage.spawn("mouse", {60, 60}), second = stage.spawn("mouse", {200, 150});
  // Side by side, and a small map over both.
  stage.camera().canvas = {32, 32};
  stage.follow(first);
  vole::ShownView& right = stage.add_view("right", {{32, 0}, {32, 32}});
  right.followed = {second};
  right.camera.zoom = 2;
  vole::ShownView& map = stage.add_view("map", {{44, 2}, {18, 12}});
  map.camera.zoom = 0.125f;
  map.layers = {"ground"};
  map.light = false;
  map.camera.jump_to({160, 120});
  CHECK_THROWS_WITH(stage.add_view("map", {}), Catch::Contains("a view \"map\" is there already"));
  CHECK_THROWS_WITH(stage.view("mpa"), Catch::Contains("no view \"mpa\"; did you mean \"map\"?"));
  town.tick(3);
  const Image all = town.picture({64, 32});

  // One after the other, as the only camera of the same scene.
  const vole::StateBytes state = town.state();
  const auto alone = [&](const Camera& camera) {
    town.enter();
    vole::StateReader in(state);
    town.running->read(in);
    town.running->bind();
    vole::Stage& now = town.running->stage();
    now.remove_view("right");
    now.remove_view("map");
    now.camera() = camera;
    now.camera().at = {0, 0};
    return town.picture(camera.canvas);
  };
  const Camera left_camera = town.running->stage().camera();
  const Camera right_camera = town.running->stage().view("right").camera;
  CHECK(right_camera.middle() == Vec2{200, 150});
  CHECK(part_of(all, {{0, 0}, {32, 32}}) == alone(left_camera));
  const Image right_alone = alone(right_camera);
  CHECK(part_of(all, {{32, 14}, {32, 18}}) == part_of(right_alone, {{0, 14}, {32, 18}}));
  // The map shows the ground by day: the colours of tiles and sky.
  bool dark = false;
  for (int y = 2; y < 14; ++y)
    for (int x = 44; x < 62; ++x) {
      const Colour pixel = all.at(x, y);
      dark = dark || !(pixel == Colour{0x20, 0x40, 0x60, 255} || pixel == Colour{0x4a, 0x30, 0x26, 255});
    }
  CHECK_FALSE(dark);
}

TEST_CASE("the camera goes over to a zone, and keeps several things in view") {
  Town town;
  vole::Stage& stage = town.running->stage();
  const vole::Entity mouse = stage.spawn("mouse", {20, 20}), other = stage.spawn("mouse", {300, 20});
  stage.follow(mouse);
  CHECK(stage.camera().seen().at == Vec2{0, 4});
  stage.look_within("square", 0.5f);
  town.tick(10);
  CHECK(stage.camera().seen().left() > 0);
  CHECK(stage.camera().seen().left() < 80);
  town.tick(40);
  CHECK(stage.camera().seen().at == Vec2{80, 80});
  CHECK_THROWS_WITH(stage.look_within("sqare"), Catch::Contains("did you mean \"square\"?"));
  stage.camera().bounds = {};
  stage.camera().farthest = 0.125f;
  stage.follow({mouse, other});
  town.tick(5);
  CHECK(stage.camera().seen().left() < 20);
  CHECK(stage.camera().seen().right() > 300);
  stage.remove(other);
  town.tick(5);
  CHECK(stage.camera().zoom_now() == 1);
  // What is followed goes away: the camera stays where it is.
  const Vec2 middle = stage.camera().middle();
  stage.remove(mouse);
  town.tick(5);
  CHECK(stage.camera().middle() == middle);
}

TEST_CASE("what a game sets of a camera can stand in a file, and is taken over at once") {
  vole::CameraSettings settings;
  vole::Report report;
  read(vole::parse_toml("slack = [16, 12]\nzoom = 2\nahead = 0.4\n", "camera"), settings, report);
  CHECK_FALSE(report.has_errors());
  Camera camera;
  camera.jump_to({100, 60});
  camera.use(settings);
  CHECK(camera.slack == Vec2{16, 12});
  CHECK(camera.zoom == 2);
  CHECK(camera.ahead == 0.4f);
  CHECK(camera.middle() == Vec2{100, 60});
  // As the state of a scene that keeps them.
  vole::CameraSettings again;
  read(vole::parse_toml(to_toml(settings), "camera"), again, report, vole::TableOf::state);
  CHECK(to_toml(again) == to_toml(settings));
  read(vole::parse_toml("zoom = 40\nslak = [1, 1]\n", "camera"), settings, report);
  CHECK(to_text(report.problems().at(0)) == "camera:1:8: error: 40 is too large; the most is 16");
  CHECK(to_text(report.problems().at(1)).find("did you mean \"slack\"?") != std::string::npos);
}
