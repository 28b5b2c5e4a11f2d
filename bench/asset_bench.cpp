// Assets and sprites: starting up from loose files and from an atlas, packing, many pictures against one,
// labels.
#include <benchmark/benchmark.h>
#include <fmt/core.h>
#include <stdlib.h>

#include <filesystem>

#include "vole/asset/atlas.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/asset/font.hpp"
#include "vole/asset/packing.hpp"
#include "vole/base/random.hpp"
#include "vole/draw/label.hpp"
#include "vole/draw/raster.hpp"

#define STB_RECT_PACK_IMPLEMENTATION
#define STBRP_STATIC
#pragma GCC diagnostic push
#pragma GCC diagnostic ignored "-Wconversion"
#pragma GCC diagnostic ignored "-Wsign-conversion"
#pragma GCC diagnostic ignored "-Wunused-function"
#include <stb/stb_rect_pack.h>
#pragma GCC diagnostic pop

namespace {

using vole::IVec2;
using vole::Vec2;

constexpr IVec2 canvas_size{1280, 720};

vole::Image blotch(vole::Random& chance, IVec2 size) {
  vole::Image image(size);
  for (int y = 0; y < size.y; ++y)
    for (int x = 0; x < size.x; ++x)
      if (chance.chance(0.7f)) image.at(x, y) = {static_cast<std::uint8_t>(chance.below(256)), 120, 60, 255};
  return image;
}

// 2,000 small pictures, loose in one folder and packed in another.
class Pictures {
 public:
  Pictures() {
    std::string pattern = (std::filesystem::temp_directory_path() / "vole-bench-XXXXXX").string();
    folder_ = mkdtemp(pattern.data());
    vole::Random chance(2);
    for (int i = 0; i < 2000; ++i) {
      const IVec2 size{8 + static_cast<int>(chance.below(25)), 8 + static_cast<int>(chance.below(25))};
      vole::write_png(fmt::format("{}/loose/assets/p{}.png", folder_, i), blotch(chance, size));
    }
    vole::write_whole(folder_ + "/loose/game.toml", "title = \"b\"\nid = \"b\"\nfirst_scene = \"b\"\n");
    const std::string command =
        fmt::format("{} atlas {}/loose -o {}/packed/assets >/dev/null", VOLE_TOOL_PATH, folder_, folder_);
    if (std::system(command.c_str()) != 0) std::abort();
  }
  ~Pictures() { std::filesystem::remove_all(folder_); }
  Pictures(const Pictures&) = delete;
  Pictures& operator=(const Pictures&) = delete;
  std::string folder(const char* which) const { return folder_ + "/" + which; }

 private:
  std::string folder_;
};

void load_all(benchmark::State& state, const char* which) {
  static const Pictures pictures;
  for ([[maybe_unused]] auto round : state) {
    vole::Catalog catalog(pictures.folder(which));
    for (int i = 0; i < 2000; ++i)
      benchmark::DoNotOptimize(&*catalog.get<vole::Sheet>(fmt::format("p{}", i)));
  }
}
void load_packed(benchmark::State& state) {
  load_all(state, "packed");
}
void load_loose(benchmark::State& state) {
  load_all(state, "loose");
}
BENCHMARK(load_packed)->Name("2,000 pictures packed/vole")->Unit(benchmark::kMillisecond);
BENCHMARK(load_loose)->Name("2,000 pictures packed/loose")->Unit(benchmark::kMillisecond);

std::vector<IVec2> mixed_sizes(int count) {
  vole::Random chance(4);
  std::vector<IVec2> sizes;
  for (int i = 0; i < count; ++i)
    sizes.push_back({4 + static_cast<int>(chance.below(61)), 4 + static_cast<int>(chance.below(61))});
  return sizes;
}

double area_of(const std::vector<IVec2>& sizes) {
  double area = 0;
  for (const IVec2 size : sizes) area += static_cast<double>(size.x) * size.y;
  return area;
}

void pack_vole(benchmark::State& state) {
  const std::vector<IVec2> sizes = mixed_sizes(5000);
  vole::Packing packing;
  for ([[maybe_unused]] auto round : state) packing = vole::pack(sizes, {4096, 4096});
  state.counters["used"] = area_of(sizes) / area_of(packing.pages);
}
// The yardstick's own way: one page of a given width, as high as it comes out.
void pack_stb(benchmark::State& state) {
  const std::vector<IVec2> sizes = mixed_sizes(5000);
  IVec2 used{0, 0};
  for ([[maybe_unused]] auto round : state) {
    std::vector<stbrp_rect> rects;
    for (const IVec2 size : sizes) rects.push_back({0, size.x, size.y, 0, 0, 0});
    std::vector<stbrp_node> nodes(2048);
    stbrp_context context{};
    stbrp_init_target(&context, 2048, 8192, nodes.data(), 2048);
    stbrp_pack_rects(&context, rects.data(), static_cast<int>(rects.size()));
    used = {0, 0};
    for (const stbrp_rect& rect : rects)
      used = {std::max(used.x, rect.x + rect.w), std::max(used.y, rect.y + rect.h)};
  }
  state.counters["used"] = area_of(sizes) / (static_cast<double>(used.x) * used.y);
}
BENCHMARK(pack_vole)->Name("packing 5,000/vole")->Unit(benchmark::kMillisecond);
BENCHMARK(pack_stb)->Name("packing 5,000/stb_rect_pack")->Unit(benchmark::kMillisecond);

// 10,000 sprites in random order of depth, of so many pictures.
void draw_many(benchmark::State& state, std::size_t count) {
  vole::Random chance(6);
  std::vector<vole::Picture> pictures;
  std::vector<vole::Frame> frames;
  if (count == 1) {
    pictures.emplace_back(blotch(chance, {200 * 16, 16}));
    for (int i = 0; i < 200; ++i) frames.push_back(vole::frame_of(pictures[0], {{i * 16, 0}, {16, 16}}));
  } else {
    pictures.reserve(count);
    for (std::size_t i = 0; i < count; ++i) {
      pictures.emplace_back(blotch(chance, {16, 16}));
      frames.push_back(vole::frame_of(pictures.back(), pictures.back().area()));
    }
  }
  struct Sprite {
    std::size_t frame;
    Vec2 at;
    float depth;
  };
  std::vector<Sprite> sprites;
  for (int i = 0; i < 10'000; ++i)
    sprites.push_back(
        {chance.below(200), {chance.within(0, 1264), chance.within(0, 704)}, chance.within(0, 100)});
  vole::Image canvas(canvas_size, {0, 0, 0, 255});
  vole::DrawList list;
  vole::Raster raster;
  for ([[maybe_unused]] auto round : state) {
    list.start(canvas_size);
    const vole::LayerId layer = list.add_layer({0, 0});
    for (const Sprite& sprite : sprites) {
      vole::PictureItem item = vole::show(frames[sprite.frame], sprite.at);
      item.depth = sprite.depth;
      list.add(layer, item);
    }
    list.sort();
    raster.draw(list, canvas);
    benchmark::ClobberMemory();
  }
  state.counters["runs"] = static_cast<double>(list.runs().size());
}
void many_pictures(benchmark::State& state) {
  draw_many(state, 200);
}
void one_picture(benchmark::State& state) {
  draw_many(state, 1);
}
BENCHMARK(many_pictures)->Name("10,000 of 200 pictures/vole")->Unit(benchmark::kMillisecond);
BENCHMARK(one_picture)->Name("10,000 of 200 pictures/in one")->Unit(benchmark::kMillisecond);

// A folder with one font, for a label.
class LabelScene {
 public:
  LabelScene() {
    std::string pattern = (std::filesystem::temp_directory_path() / "vole-bench-XXXXXX").string();
    folder_ = mkdtemp(pattern.data());
    vole::Random chance(7);
    vole::write_png(folder_ + "/assets/f.png", blotch(chance, {80, 10}));
    vole::write_whole(folder_ + "/assets/f.sheet.toml",
                      "frame = { size = [8, 10] }\n[font]\nglyphs = [\"0123456789\"]\n");
    catalog_ = std::make_unique<vole::Catalog>(folder_);
    font = catalog_->get<vole::Font>("f");
    for (int i = 0; i < 200; ++i) text += static_cast<char>('0' + chance.below(10));
  }
  ~LabelScene() { std::filesystem::remove_all(folder_); }
  LabelScene(const LabelScene&) = delete;
  LabelScene& operator=(const LabelScene&) = delete;

  vole::Asset<vole::Font> font;
  std::string text;

 private:
  std::string folder_;
  std::unique_ptr<vole::Catalog> catalog_;
};

template <class Add>
void draw_letters(benchmark::State& state, const Add& add) {
  vole::Image canvas({1800, 16}, {0, 0, 0, 255});
  vole::DrawList list;
  vole::Raster raster;
  for ([[maybe_unused]] auto round : state) {
    list.start(canvas.size());
    add(list, list.add_layer({0, 0}));
    list.sort();
    raster.draw(list, canvas);
    benchmark::ClobberMemory();
  }
}
void label_vole(benchmark::State& state) {
  const LabelScene scene;
  vole::Label label("f", "{}");
  label.of(scene.text);
  draw_letters(state, [&](vole::DrawList& list, vole::LayerId layer) {
    label.draw(list, layer, scene.font, {2, 2});
  });
}
void label_blits(benchmark::State& state) {
  const LabelScene scene;
  std::vector<vole::PictureItem> items;
  vole::lay_out_text(*scene.font, scene.text, {}, items);
  draw_letters(state, [&](vole::DrawList& list, vole::LayerId layer) {
    for (const vole::PictureItem& item : items) list.add(layer, item);
  });
}
void label_anew(benchmark::State& state) {
  const LabelScene scene;
  draw_letters(state, [&](vole::DrawList& list, vole::LayerId layer) {
    vole::draw_text(list, layer, *scene.font, scene.text, {2, 2});
  });
}
BENCHMARK(label_vole)->Name("label of 200/vole");
BENCHMARK(label_blits)->Name("label of 200/its blits");
BENCHMARK(label_anew)->Name("label of 200/laid out anew");

}  // namespace
