// What cameras show when they are nearer or further off, against each pixel on its own.
#include "vole/draw/view.hpp"

#include <cmath>
#include <limits>

#include "support.hpp"
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

Image shown(const Boxes& boxes, const Camera& camera, Vec2 parallax, IRect part, IVec2 canvas) {
  vole::DrawList list;
  list.start(canvas);
  vole::View view = camera.view(1, part);
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
    camera.canvas = part.size;
    camera.zoom = i % 3 == 0 ? static_cast<float>(1 + below(chance, 4)) : chance.within(0.7f, 6);
    const float x = chance.within(40, 100), y = chance.within(40, 80);
    camera.jump_to({x, y});
    const IVec2 middle{vole::to_pixel(camera.middle().x), vole::to_pixel(camera.middle().y)};
    const Image image = shown(boxes, camera, {1, 1}, part, canvas);
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
    CHECK(camera.corner(parallax, 1) + camera.view(1, {}).size / 2 == middle);
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
    CHECK(near(camera.to_canvas(in_level), point, 0.01f));
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
  CHECK(camera.view(1, {}).zoom == 1);  // from the next tick on
  camera.follow({100, 50}, 1.0f / 60);
  CHECK(camera.view(0, {}).zoom == 1);
  CHECK(camera.view(0.5f, {}).zoom == 2);
  CHECK(camera.view(1, {}).zoom == 3);
  camera.stay();
  CHECK(camera.view(0, {}).zoom == 3);
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
      camera.zoom = zoom;
      camera.jump_to({50, infinite});
      const vole::View view = camera.view(1, {{0, 0}, {64, 36}});
      CHECK(view.size.x <= 4096);
      CHECK(view.size.y <= 4096);
      CHECK(view.zoom >= Camera::least_zoom);
      CHECK(view.zoom <= Camera::most_zoom);
      Image image({64, 36});
      put_view(Image(view.size, vole::white), view, image);
    }
}

TEST_CASE("clips and backgrounds in a view are in its own pixels") {
  vole::DrawList list;
  list.start({64, 36});
  Camera camera;
  camera.canvas = {64, 36};
  camera.zoom = 2;
  camera.jump_to({16, 9});
  list.start_view(camera.view(1, {{0, 0}, {64, 36}}));
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
  CHECK(image.at(8, 12) == vole::clear);
  CHECK(image.at(7, 8) == vole::clear);
  if (!allocations_are_counted()) return;
  const std::int64_t before = allocations_so_far();
  raster.draw(list, image);
  CHECK(allocations_so_far() == before);
}
