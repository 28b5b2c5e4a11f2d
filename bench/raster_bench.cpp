// The software renderer against pixman, which composes pictures for desktops, on the same rectangles; and a
// layer of tiles against copying a canvas.
#include <benchmark/benchmark.h>
#include <pixman.h>

#include <cmath>
#include <cstring>
#include <vector>

#include "vole/base/block_grid.hpp"
#include "vole/base/random.hpp"
#include "vole/draw/raster.hpp"

namespace {

using vole::IVec2;

constexpr IVec2 canvas_size{1280, 720};
constexpr int sprites = 1000;
constexpr IVec2 sprite_size{32, 32};
constexpr float turn = 30;
constexpr float enlarge = 2.5f;

// A sprite with a soft edge, as most are: clear outside, opaque inside, a rim in between.
vole::Image sprite_image(bool opaque) {
  vole::Random chance(1);
  vole::Image image(sprite_size);
  for (int y = 0; y < sprite_size.y; ++y)
    for (int x = 0; x < sprite_size.x; ++x) {
      const int dx = 2 * x - sprite_size.x, dy = 2 * y - sprite_size.y;
      const int far = dx * dx + dy * dy;
      const int alpha = opaque || far < 700 ? 255 : far < 1000 ? 128 : 0;
      image.at(x, y) = {static_cast<std::uint8_t>(chance.below(256)),
                        static_cast<std::uint8_t>(chance.below(256)), 90, static_cast<std::uint8_t>(alpha)};
    }
  return image;
}

std::vector<IVec2> positions() {
  vole::Random chance(2);
  std::vector<IVec2> all;
  for (int i = 0; i < sprites; ++i)
    all.push_back({static_cast<int>(chance.below(1280)) - 16, static_cast<int>(chance.below(720)) - 16});
  return all;
}

void draw_sprites(benchmark::State& state, bool opaque, float scale, float rotation) {
  const vole::Picture picture(sprite_image(opaque));
  vole::Image canvas(canvas_size, {0, 0, 0, 255});
  vole::DrawList list;
  list.start(canvas_size);
  const auto layer = list.add_layer({0, 0});
  for (const IVec2 at : positions())
    list.add(layer, {.picture = &picture,
                     .from = picture.area(),
                     .alpha = picture.alpha_of(picture.area()),
                     .at = vole::Vec2(at),
                     .scale = {scale, scale},
                     .rotation = rotation});
  vole::Raster raster;
  for ([[maybe_unused]] auto round : state) {
    raster.draw(list, canvas);
    benchmark::ClobberMemory();
  }
}

class PixmanImage {
 public:
  PixmanImage(const vole::Image& image, pixman_format_code_t format)
      : picture_(image), bits_(pixman_image_create_bits(format, image.size().x, image.size().y, nullptr, 0)) {
    for (int y = 0; y < image.size().y; ++y)
      std::memcpy(reinterpret_cast<char*>(pixman_image_get_data(bits_)) + y * pixman_image_get_stride(bits_),
                  picture_.row(y), static_cast<std::size_t>(image.size().x) * 4);
  }
  ~PixmanImage() { pixman_image_unref(bits_); }
  PixmanImage(const PixmanImage&) = delete;
  PixmanImage& operator=(const PixmanImage&) = delete;
  pixman_image_t* get() const { return bits_; }

 private:
  vole::Picture picture_;
  pixman_image_t* bits_;
};

void compose_with_pixman(benchmark::State& state, pixman_op_t operation, bool opaque, float scale,
                         float rotation) {
  const PixmanImage sprite(sprite_image(opaque), PIXMAN_a8b8g8r8);
  const PixmanImage canvas(vole::Image(canvas_size, {0, 0, 0, 255}), PIXMAN_a8b8g8r8);
  IVec2 reach = sprite_size;
  if (scale != 1 || rotation != 0) {
    pixman_f_transform_t map;
    pixman_f_transform_init_identity(&map);
    const double radians = static_cast<double>(rotation) * 3.14159265358979 / 180;
    pixman_f_transform_rotate(&map, nullptr, std::cos(radians), std::sin(-radians));
    pixman_f_transform_scale(&map, nullptr, 1 / static_cast<double>(scale), 1 / static_cast<double>(scale));
    pixman_transform_t fixed;
    pixman_transform_from_pixman_f_transform(&fixed, &map);
    pixman_image_set_transform(sprite.get(), &fixed);
    pixman_image_set_filter(sprite.get(), PIXMAN_FILTER_NEAREST, nullptr, 0);
    const float side = rotation != 0 ? 1.37f : 1.0f;  // of the box round a square turned by 30 degrees
    reach = {static_cast<int>(32 * scale * side), static_cast<int>(32 * scale * side)};
  }
  const std::vector<IVec2> all = positions();
  for ([[maybe_unused]] auto round : state) {
    for (const IVec2 at : all)
      pixman_image_composite32(operation, sprite.get(), nullptr, canvas.get(), 0, 0, 0, 0, at.x, at.y,
                               reach.x, reach.y);
    benchmark::ClobberMemory();
  }
}

void opaque_vole(benchmark::State& state) {
  draw_sprites(state, true, 1, 0);
}
void opaque_pixman(benchmark::State& state) {
  compose_with_pixman(state, PIXMAN_OP_SRC, true, 1, 0);
}
void blended_vole(benchmark::State& state) {
  draw_sprites(state, false, 1, 0);
}
void blended_pixman(benchmark::State& state) {
  compose_with_pixman(state, PIXMAN_OP_OVER, false, 1, 0);
}
void scaled_vole(benchmark::State& state) {
  draw_sprites(state, false, enlarge, 0);
}
void scaled_pixman(benchmark::State& state) {
  compose_with_pixman(state, PIXMAN_OP_OVER, false, enlarge, 0);
}
void turned_vole(benchmark::State& state) {
  draw_sprites(state, false, enlarge, turn);
}
void turned_pixman(benchmark::State& state) {
  compose_with_pixman(state, PIXMAN_OP_OVER, false, enlarge, turn);
}
BENCHMARK(opaque_vole)->Name("sprites opaque/vole");
BENCHMARK(opaque_pixman)->Name("sprites opaque/pixman");
BENCHMARK(blended_vole)->Name("sprites blended/vole");
BENCHMARK(blended_pixman)->Name("sprites blended/pixman");
BENCHMARK(scaled_vole)->Name("sprites scaled/vole");
BENCHMARK(scaled_pixman)->Name("sprites scaled/pixman");
BENCHMARK(turned_vole)->Name("sprites turned/vole");
BENCHMARK(turned_pixman)->Name("sprites turned/pixman");

// A canvas full of tiles on a map of the given side, scrolled by a few pixels each time.
void draw_map(benchmark::State& state, int side) {
  const vole::Picture picture(vole::Image({256, 16}, {90, 60, 40, 255}));
  std::vector<vole::Frame> frames;
  for (int i = 0; i < 16; ++i) frames.push_back(vole::frame_of(picture, {{i * 16, 0}, {16, 16}}));
  vole::Random chance(3);
  vole::TileGrid tiles({side, side});
  for (int y = 0; y < side; ++y)
    for (int x = 0; x < side; ++x) tiles.set({x, y}, static_cast<std::uint16_t>(chance.below(16) + 1));
  vole::Image canvas(canvas_size, {0, 0, 0, 255});
  vole::DrawList list;
  vole::Raster raster;
  int scroll = 0;
  const int room = side * 16 - 1280;
  for ([[maybe_unused]] auto round : state) {
    list.start(canvas_size);
    scroll = (scroll + 3) % room;
    list.add(list.add_layer({scroll, scroll % (side * 16 - 720)}),
             vole::TilesItem{&tiles, {16, 16}, frames.data()});
    raster.draw(list, canvas);
    benchmark::ClobberMemory();
  }
}

void tiles_vole(benchmark::State& state) {
  draw_map(state, 128);
}
void copied_canvas(benchmark::State& state) {
  const vole::Image from(canvas_size, {1, 2, 3, 255});
  vole::Image to(canvas_size);
  for ([[maybe_unused]] auto round : state) {
    std::memcpy(to.row(0), from.row(0), 1280 * 720 * 4);
    benchmark::ClobberMemory();
  }
}
void large_map(benchmark::State& state) {
  draw_map(state, 4096);
}
void small_map(benchmark::State& state) {
  draw_map(state, 96);
}
BENCHMARK(tiles_vole)->Name("layer of tiles/vole");
BENCHMARK(copied_canvas)->Name("layer of tiles/memcpy");
BENCHMARK(large_map)->Name("map of 4096 x 4096/vole");
BENCHMARK(small_map)->Name("map of 4096 x 4096/map of 96");

}  // namespace
