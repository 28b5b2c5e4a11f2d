// The renderer against one that works out each pixel by itself.
#include "vole/draw/raster.hpp"

#include <cmath>

#include "support.hpp"
#include "vole/asset/font.hpp"
#include "vole/base/block_grid.hpp"
#include "vole/draw/camera.hpp"
#include "vole/draw/text.hpp"

namespace {

using vole::Colour;
using vole::DrawItem;
using vole::Image;
using vole::IRect;
using vole::IVec2;

// Each pixel on its own, straight from the definitions: no rows, no spans, no special cases.
class Reference {
 public:
  static void draw(const vole::DrawList& list, Image& canvas) {
    for (int y = 0; y < canvas.size().y; ++y)
      for (int x = 0; x < canvas.size().x; ++x)
        for (const DrawItem& item : list.items())
          if (item.clip.contains({x, y}))
            canvas.at(x, y) = mixed(item, pixel(list, item, {x, y}), canvas.at(x, y));
  }

 private:
  static Colour mixed(const DrawItem& item, Colour above, Colour below) {
    if (item.type != DrawItem::Type::picture || item.picture.blend == vole::Blend::over)
      return over(above, below);
    const bool adds = item.picture.blend == vole::Blend::add;
    const auto part = [&](int a, int b) {
      const int shade = a + 255 - above.a;
      return static_cast<std::uint8_t>(adds ? std::min(a + b, 255) : (b * shade + 127) / 255);
    };
    return {part(above.r, below.r), part(above.g, below.g), part(above.b, below.b), 255};
  }
  static Colour towards(Colour pixel, Colour flash) {
    const auto part = [&](int mine, int colour) {
      const int kept = (mine * (255 - flash.a) + 127) / 255;
      const int come = ((colour * pixel.a + 127) / 255 * flash.a + 127) / 255;
      return static_cast<std::uint8_t>(std::min<int>(kept + come, pixel.a));
    };
    return {part(pixel.r, flash.r), part(pixel.g, flash.g), part(pixel.b, flash.b), pixel.a};
  }
  static Colour over(Colour above, Colour below) {
    const auto part = [&](int a, int b) {
      return static_cast<std::uint8_t>(
          a + vole::multiply(static_cast<std::uint8_t>(b), static_cast<std::uint8_t>(255 - above.a)));
    };
    return {part(above.r, below.r), part(above.g, below.g), part(above.b, below.b), part(above.a, below.a)};
  }
  static Colour times(Colour a, Colour b) {
    return {vole::multiply(a.r, b.r), vole::multiply(a.g, b.g), vole::multiply(a.b, b.b),
            vole::multiply(a.a, b.a)};
  }
  static Colour pixel(const vole::DrawList& list, const DrawItem& item, IVec2 at) {
    switch (item.type) {
      case DrawItem::Type::picture:
        return picture(item.picture, at);
      case DrawItem::Type::fill:
        return item.box.contains(at) ? flat(item) : vole::clear;
      case DrawItem::Type::outline: {
        const IRect inner{{item.box.left() + 1, item.box.top() + 1},
                          {item.box.size.x - 2, item.box.size.y - 2}};
        return item.box.contains(at) && !inner.contains(at) ? flat(item) : vole::clear;
      }
      case DrawItem::Type::tiles:
        return tile(item.tiles, list.corner(item.layer), at);
      case DrawItem::Type::lighting:  // these have tests of their own
      case DrawItem::Type::blur:
        break;
    }
    return vole::clear;
  }
  static Colour flat(const DrawItem& item) {
    const Colour c = item.picture.tint;
    return {vole::multiply(c.r, c.a), vole::multiply(c.g, c.a), vole::multiply(c.b, c.a), c.a};
  }
  static Colour picture(const vole::PictureItem& item, IVec2 at) {
    const vole::PixelMap map = vole::pixel_map(item);
    const std::int64_t u = (map.start_u + at.x * map.across_u + at.y * map.down_u) >> 16;
    const std::int64_t v = (map.start_v + at.x * map.across_v + at.y * map.down_v) >> 16;
    if (u < 0 || v < 0 || u >= item.from.size.x || v >= item.from.size.y) return vole::clear;
    const Colour pixel =
        item.picture->row(item.from.top() + static_cast<int>(v))[item.from.left() + static_cast<int>(u)];
    return times(towards(pixel, item.flash), vole::multiplier_of(item));
  }
  static Colour tile(const vole::TilesItem& grid, IVec2 corner, IVec2 at) {
    const IVec2 world{at.x + corner.x, at.y + corner.y}, size = grid.tile_size;
    if (!IRect{{0, 0}, grid.cells->cells() * size}.contains(world)) return vole::clear;
    const auto cell = vole::TileCell::from(grid.cells->find(world / size));
    if (cell.tile < 0) return vole::clear;
    const vole::Frame& frame = grid.frames[cell.tile];
    // Turned back by quarters, and then back in the mirror.
    IVec2 pixel{world.x % size.x, world.y % size.y};
    if (cell.quarters == 2) pixel = size - IVec2{1, 1} - pixel;
    if (cell.quarters % 2 == 1)  // of squares alone
      for (int i = 0; i < cell.quarters; ++i) pixel = {pixel.y, size.x - 1 - pixel.x};
    if (cell.mirrored) pixel.x = size.x - 1 - pixel.x;
    pixel -= frame.offset;
    if (!IRect{{0, 0}, frame.area.size}.contains(pixel)) return vole::clear;
    const vole::PictureItem look{.tint = grid.tint, .opacity = grid.opacity};
    return times(frame.picture->row(frame.area.top() + pixel.y)[frame.area.left() + pixel.x],
                 vole::multiplier_of(look));
  }
};

// A picture with an opaque, a cut-out and a blended third.
vole::Picture random_picture(vole::Random& chance) {
  Image image({48, 32});
  for (int y = 0; y < 32; ++y)
    for (int x = 0; x < 48; ++x) {
      const std::uint8_t alpha = x < 16   ? 255
                                 : x < 32 ? (chance.chance(0.5f) ? 255 : 0)
                                          : static_cast<std::uint8_t>(chance.below(256));
      image.at(x, y) = {static_cast<std::uint8_t>(chance.below(256)),
                        static_cast<std::uint8_t>(chance.below(256)),
                        static_cast<std::uint8_t>(chance.below(256)), alpha};
    }
  return vole::Picture(image);
}

Colour random_colour(vole::Random& chance) {
  const std::uint32_t bits = chance.next();
  return {static_cast<std::uint8_t>(bits), static_cast<std::uint8_t>(bits >> 8),
          static_cast<std::uint8_t>(bits >> 16),
          chance.chance(0.3f) ? std::uint8_t{255} : static_cast<std::uint8_t>(bits >> 24)};
}

vole::PictureItem random_item(vole::Random& chance, const vole::Picture& picture) {
  vole::PictureItem item;
  item.picture = &picture;
  const IVec2 at{static_cast<int>(chance.below(47)), static_cast<int>(chance.below(31))};
  item.from = {at,
               {static_cast<int>(chance.below(static_cast<std::uint32_t>(48 - at.x))) + 1,
                static_cast<int>(chance.below(static_cast<std::uint32_t>(32 - at.y))) + 1}};
  item.alpha = picture.alpha_of(item.from);
  item.at = {chance.within(-30, 110), chance.within(-30, 90)};
  item.pivot = {static_cast<int>(chance.below(40)) - 10, static_cast<int>(chance.below(40)) - 10};
  item.mirrored = chance.chance(0.3f);
  item.upside_down = chance.chance(0.3f);
  if (chance.chance(0.4f)) item.scale = {chance.within(0.1f, 4), chance.within(0.1f, 4)};
  if (chance.chance(0.1f)) item.scale = {2, 2};
  if (chance.chance(0.4f))
    item.rotation =
        chance.chance(0.3f) ? static_cast<float>(chance.below(8)) * 90 - 360 : chance.within(-400, 400);
  if (chance.chance(0.3f)) item.tint = random_colour(chance);
  if (chance.chance(0.3f)) item.opacity = chance.within(0, 1);
  if (chance.chance(0.3f)) item.blend = static_cast<vole::Blend>(chance.below(3));
  if (chance.chance(0.2f)) item.flash = random_colour(chance);
  item.depth = static_cast<float>(chance.below(3));
  return item;
}

}  // namespace

TEST_CASE("any list is drawn as the reference draws it, pixel for pixel") {
  vole::Random chance(31);
  for (int round = 0; round < 250; ++round) {
    const vole::Picture picture = random_picture(chance);
    const IVec2 tile{16, chance.chance(0.3f) ? 9 : 16};
    std::vector<vole::Frame> frames;
    for (const IVec2 at : {IVec2{0, 0}, IVec2{16, 0}, IVec2{32, 16}})
      frames.push_back(vole::frame_of(picture, {at, tile}));
    // One that lost its clear borders when it was packed.
    frames.push_back(vole::frame_of(picture, {{3, 2}, {7, 5}}));
    frames.back().offset = {6, 4};
    vole::TileGrid tiles({37, 21});
    const bool sparse = chance.chance(0.3f);
    for (int i = 0; i < 37 * 21; ++i) {
      if (sparse && chance.chance(0.95f)) continue;
      vole::TileCell cell{static_cast<int>(chance.below(5)) - 1, false, 0};
      if (chance.chance(0.5f)) cell.mirrored = chance.chance(0.5f);
      if (chance.chance(0.5f)) cell.quarters = static_cast<int>(chance.below(4));
      if (tile.y != 16) cell.quarters &= 2;
      tiles.set({i % 37, i / 37}, cell.number());
    }
    vole::DrawList list;
    const IVec2 size{static_cast<int>(chance.below(80)) + 1, static_cast<int>(chance.below(60)) + 1};
    list.start(size);
    for (int i = 0; i < 2; ++i)
      list.add_layer({static_cast<int>(chance.below(600)) - 40, static_cast<int>(chance.below(360)) - 40});
    for (std::uint32_t i = chance.below(8) + 1; i > 0; --i) {
      const auto layer = static_cast<vole::LayerId>(chance.below(2));
      if (chance.chance(0.2f))
        list.clip_to({{static_cast<int>(chance.below(40)) - 10, static_cast<int>(chance.below(40)) - 10},
                      {static_cast<int>(chance.below(60)), static_cast<int>(chance.below(60))}});
      const vole::Rect box{{chance.within(-20, 80), chance.within(-20, 60)},
                           {chance.within(0, 40), chance.within(0, 40)}};
      switch (chance.below(5)) {
        case 0:
          list.fill(layer, box, random_colour(chance));
          break;
        case 1:
          list.outline(layer, box, random_colour(chance));
          break;
        case 2:
          list.add(layer, vole::TilesItem{&tiles, tile, frames.data(),
                                          chance.chance(0.3f) ? random_colour(chance) : vole::white,
                                          chance.chance(0.3f) ? chance.within(0, 1) : 1.0f});
          break;
        default:
          list.add(layer, random_item(chance, picture));
          break;
      }
    }
    list.sort();
    Image drawn(size, {20, 30, 40, 255});
    Image wanted = drawn;
    vole::Raster().draw(list, drawn);
    Reference::draw(list, wanted);
    CAPTURE(round);
    REQUIRE(drawn == wanted);
  }
}

TEST_CASE("what is drawn does not depend on where the canvas is cut") {
  // The same list on a canvas and on a larger one around it: nothing near the edge is left out, and nothing
  // moves.
  vole::Random chance(32);
  constexpr IVec2 small{60, 40}, rim{150, 150};
  const IVec2 large{small.x + 2 * rim.x, small.y + 2 * rim.y};
  for (int round = 0; round < 150; ++round) {
    const vole::Picture picture = random_picture(chance);
    vole::DrawList lists[2];
    lists[0].start(small);
    lists[1].start(large);
    const IVec2 corner{static_cast<int>(chance.below(9)), static_cast<int>(chance.below(9))};
    lists[0].add_layer(corner);
    lists[1].add_layer({corner.x - rim.x, corner.y - rim.y});
    for (int i = 0; i < 4; ++i) {
      const vole::PictureItem item = random_item(chance, picture);
      const vole::Rect box{{chance.within(-20, 80), chance.within(-20, 60)},
                           {chance.within(0, 40), chance.within(0, 40)}};
      const Colour colour = random_colour(chance);
      for (vole::DrawList& list : lists) {
        list.add(0, item);
        list.outline(0, box, colour);
      }
    }
    Image drawn(small, {20, 30, 40, 255}), around(large, {20, 30, 40, 255});
    for (vole::DrawList& list : lists) list.sort();
    vole::Raster raster;
    raster.draw(lists[0], drawn);
    raster.draw(lists[1], around);
    Image part(small);
    for (int y = 0; y < small.y; ++y)
      for (int x = 0; x < small.x; ++x) part.at(x, y) = around.at(x + rim.x, y + rim.y);
    CAPTURE(round);
    REQUIRE(drawn == part);
  }
}

TEST_CASE("odd numbers in an item do no harm") {
  const float nan = std::nanf("");
  vole::Random chance(33);
  const vole::Picture picture = random_picture(chance);
  vole::DrawList list;
  list.start({40, 30});
  list.add_layer({0, 0});
  for (const float odd : {nan, HUGE_VALF, -HUGE_VALF, 0.0f, -1.0f, 1e-20f, 1e20f}) {
    for (int field = 0; field < 6; ++field) {
      vole::PictureItem item{.picture = &picture, .from = picture.area()};
      if (field == 0) item.at.x = odd;
      if (field == 1) item.scale = {odd, 1};
      if (field == 2) item.rotation = odd;
      if (field == 3) item.opacity = odd;
      if (field == 4) item.depth = odd;
      if (field == 5) item.scale = {odd, odd};
      list.add(0, item);
    }
    list.fill(0, {{odd, 0}, {odd, odd}}, {1, 2, 3, 4});
    list.outline(0, {{0, odd}, {10, odd}}, {1, 2, 3, 4});
  }
  // Parts that are not in the picture, as when it became smaller.
  list.add(0, vole::PictureItem{.picture = &picture, .from = {{40, 30}, {20, 20}}});
  list.add(0, vole::PictureItem{.picture = &picture, .from = {{-5, 0}, {20, 20}}});
  list.add(0, vole::PictureItem{.picture = &picture, .from = {{5, 5}, {0, 9}}});
  list.add(0, vole::PictureItem{});
  list.sort();
  Image canvas({40, 30}, {0, 0, 0, 255});
  vole::Raster().draw(list, canvas);
  for (int y = 0; y < 30; ++y)
    for (int x = 0; x < 40; ++x) REQUIRE(canvas.at(x, y).a == 255);
}

TEST_CASE("blending does what its words say") {
  vole::DrawList list;
  const auto mixed = [&](Colour above, Colour below, vole::Blend blend, Colour flash = vole::clear) {
    const vole::Picture picture(Image({1, 1}, above));
    list.start({1, 1});
    list.add(list.add_layer({0, 0}),
             vole::PictureItem{.picture = &picture, .from = picture.area(), .blend = blend, .flash = flash});
    Image canvas({1, 1}, below);
    vole::Raster().draw(list, canvas);
    return canvas.at(0, 0);
  };
  const Colour dusk{100, 80, 60, 255}, lamp{200, 150, 50, 255};
  CHECK(mixed(lamp, dusk, vole::Blend::add) == Colour{255, 230, 110, 255});
  CHECK(mixed(vole::clear, dusk, vole::Blend::add) == dusk);
  CHECK(mixed(vole::white, dusk, vole::Blend::multiply) == dusk);
  CHECK(mixed({0, 0, 0, 255}, dusk, vole::Blend::multiply) == Colour{0, 0, 0, 255});
  CHECK(mixed(vole::clear, dusk, vole::Blend::multiply) == dusk);
  CHECK(mixed(lamp, dusk, vole::Blend::over, vole::white) == vole::white);
  CHECK(mixed(vole::clear, dusk, vole::Blend::over, vole::white) == dusk);
  CHECK(mixed({0, 0, 0, 255}, dusk, vole::Blend::over, {255, 255, 255, 128}) == Colour{128, 128, 128, 255});
}

TEST_CASE("items are drawn by layer, then depth, then as they were added") {
  vole::DrawList list;
  list.start({4, 4});
  const auto below = list.add_layer({0, 0});
  const auto above = list.add_layer({0, 0});
  list.fill(above, {{0, 0}, {1, 1}}, {1, 0, 0, 255});
  list.fill(below, {{0, 0}, {1, 1}}, {2, 0, 0, 255}, 5);
  list.fill(below, {{0, 0}, {1, 1}}, {3, 0, 0, 255}, 1);
  list.fill(below, {{0, 0}, {1, 1}}, {4, 0, 0, 255}, 5);
  list.fill(below, {{0, 0}, {1, 1}}, {5, 0, 0, 255}, std::nanf(""));
  list.sort();
  std::vector<int> order;
  for (const DrawItem& item : list.items()) order.push_back(item.picture.tint.r);
  CHECK(order == std::vector<int>{5, 3, 2, 4, 1});
}

TEST_CASE("what moves along with the camera does not shimmer against the ground") {
  // A thing that keeps its place in the world keeps its place on the ground's pixels, whatever the camera
  // does.
  vole::Camera camera;
  camera.canvas = {64, 32};
  vole::Random chance(8);
  for (int i = 0; i < 1000; ++i) {
    camera.jump_to({chance.within(0, 500), chance.within(0, 500)});
    camera.follow({chance.within(0, 500), chance.within(0, 500)}, 1.0f / 60);
    vole::DrawList list;
    list.start(camera.canvas);
    const IVec2 corner = camera.corner({1, 1}, chance.within(0, 1));
    const auto layer = list.add_layer(corner);
    list.fill(layer, {{100.4f, 70.6f}, {3, 3}}, vole::white);
    CHECK(list.items()[0].box.at == IVec2{100 - corner.x, 71 - corner.y});
  }
}

TEST_CASE("the camera follows with slack and stays inside") {
  vole::Camera camera;
  camera.canvas = {100, 50};
  camera.bounds = {{0, 0}, {300, 40}};
  camera.jump_to({0, 0});
  CHECK(camera.corner({1, 1}, 1) == IVec2{0, -5});  // lower than the canvas: in the middle
  camera.slack = {10, 10};
  camera.follow({59, 0}, 1.0f / 60);
  CHECK(camera.middle().x == 50);
  camera.follow({170, 0}, 1.0f / 60);
  CHECK(camera.middle().x == 160);
  CHECK(camera.corner({0.5f, 0}, 1) == IVec2{55, 0});
  camera.smoothing = 0.5f;
  float last = camera.middle().x;
  for (int i = 0; i < 600; ++i) {
    camera.follow({1000, 0}, 1.0f / 60);
    REQUIRE(camera.middle().x >= last);
    last = camera.middle().x;
  }
  CHECK(last == 250);
}

TEST_CASE("text is set by any of its nine anchors") {
  const vole::Font& font = vole::plain_font();
  for (int anchor = 0; anchor < 9; ++anchor) {
    vole::DrawList list;
    list.start({200, 100});
    const auto layer = list.add_layer({0, 0});
    vole::draw_text(list, layer, font, "Hedge\nrow", {100, 50},
                    {.anchor = static_cast<vole::Anchor>(anchor)});
    int left = 1000, right = -1000, top = 1000, bottom = -1000;
    for (const DrawItem& item : list.items()) {
      left = std::min(left, static_cast<int>(item.picture.at.x));
      right = std::max(right, static_cast<int>(item.picture.at.x) + item.picture.from.size.x);
      top = std::min(top, static_cast<int>(item.picture.at.y));
      bottom = std::max(bottom, static_cast<int>(item.picture.at.y) + item.picture.from.size.y);
    }
    CAPTURE(anchor);
    const int column = anchor % 3, row = anchor / 3;
    CHECK(std::abs((column == 0 ? left : column == 1 ? (left + right) / 2 : right) - 100) <= 2);
    CHECK(std::abs((row == 0 ? top : row == 1 ? (top + bottom) / 2 : bottom) - 50) <= 1);
  }
}
