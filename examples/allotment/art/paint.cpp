// Paints the allotment's pictures: text grids from this folder, skies and hedges that are drawn by rule, and
// the font from its strokes.
//
//   paint_allotment <folder of grids> <folder for the PNGs>
#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>

#include "cellar.hpp"
#include "grid.hpp"
#include "stroke_font.hpp"
#include "vole/base/random.hpp"
#include "vole/base/trig.hpp"

namespace {

using paint::Grid;
using paint::ink;
using paint::paint_grid;
using paint::read_grid;
using vole::Colour;
using vole::Image;
using vole::IVec2;

// Ordered dithering, the 4 x 4 matrix of B. E. Bayer, 1973: where one band turns into the next.
bool dithered(int x, int y, float share) {
  constexpr int matrix[4][4] = {{0, 8, 2, 10}, {12, 4, 14, 6}, {3, 11, 1, 9}, {15, 7, 13, 5}};
  return (static_cast<float>(matrix[y & 3][x & 3]) + 0.5f) / 16.0f < share;
}

float wave(float x, float period, float shift) {
  return vole::sin_degrees((x / period + shift) * 360.0f);
}

// The end of an autumn day: night above, embers at the horizon, a low sun and bars of cloud. Repeats every
// 320 pixels.
Image paint_sky() {
  constexpr std::string_view bands = "NMppPoOyC";
  constexpr std::array<int, 9> starts{0, 18, 38, 54, 70, 88, 102, 112, 124};
  Image image({320, 180});
  for (int y = 0; y < 180; ++y)
    for (int x = 0; x < 320; ++x) {
      std::size_t band = 0;
      while (band + 1 < starts.size() && y >= starts[band + 1]) ++band;
      const int next = band + 1 < starts.size() ? starts[band + 1] : 200;
      const float share = static_cast<float>(y - starts[band]) / static_cast<float>(next - starts[band]);
      const bool later = band + 1 < bands.size() && dithered(x, y, (share - 0.45f) * 1.8f);
      image.at(x, y) = ink(bands[later ? band + 1 : band]);
    }
  vole::Random chance(11);
  for (int i = 0; i < 26; ++i) {
    const int x = static_cast<int>(chance.below(320));
    const int y = static_cast<int>(chance.below(48));
    image.at(x, y) = ink(chance.chance(0.3f) ? 'W' : 'S');
  }
  constexpr IVec2 sun{226, 98};
  for (int y = 0; y < 180; ++y)
    for (int x = 0; x < 320; ++x) {
      const int dx = x - sun.x, dy = y - sun.y;
      const int d = dx * dx + dy * dy;
      if (d < 15 * 15)
        image.at(x, y) = ink('W');
      else if (d < 17 * 17)
        image.at(x, y) = ink('C');
      else if (d < 24 * 24 && dithered(x, y, 0.5f))
        image.at(x, y) = ink('y');
    }
  struct Cloud {
    int x, y, half, thick;
    char light, dark;
  };
  constexpr Cloud clouds[] = {
      {60, 46, 46, 6, 'P', 'p'},  {100, 52, 34, 5, 'P', 'p'}, {255, 62, 52, 6, 'o', 'p'},
      {205, 69, 30, 4, 'o', 'P'}, {150, 82, 40, 4, 'O', 'o'}, {30, 88, 36, 4, 'O', 'o'},
      {290, 96, 34, 4, 'y', 'o'}, {150, 30, 30, 4, 'p', 'M'}, {300, 26, 34, 5, 'p', 'M'}};
  for (const Cloud& cloud : clouds)
    for (int dx = -cloud.half; dx <= cloud.half; ++dx) {
      const float along = 1.0f - static_cast<float>(dx * dx) / static_cast<float>(cloud.half * cloud.half);
      const float bump = 0.55f + 0.3f * wave(static_cast<float>(dx + cloud.x), 23.0f, 0.2f) +
                         0.15f * wave(static_cast<float>(dx), 9.0f, 0.6f);
      const int up = std::max(1, static_cast<int>(static_cast<float>(cloud.thick) * along * bump + 0.5f));
      const int x = ((cloud.x + dx) % 320 + 320) % 320;
      for (int dy = -up; dy <= (along > 0.35f ? 1 : 0); ++dy)
        image.at(x, cloud.y + dy) = ink(dy < 0 && dy <= -up / 2 ? cloud.light : cloud.dark);
    }
  return image;
}

struct Ridge {
  float base, swell, period, shift, leaf;
  char rim, body, deep;
};

// A line of hedges or trees: a rolling top edge of leaves, lit from the upper left, darker below.
void paint_ridge(Image& image, const Ridge& ridge, std::uint64_t seed) {
  const int width = image.size().x;
  vole::Random chance(seed);
  std::vector<float> leaf(static_cast<std::size_t>(width));
  for (float& height : leaf) height = chance.within(0.0f, ridge.leaf);
  for (int x = 0; x < width; ++x) {
    const auto fx = static_cast<float>(x);
    const float clump =
        std::abs(wave(fx, 40.0f, ridge.shift)) * 5.0f + std::abs(wave(fx, 16.0f, ridge.shift * 3)) * 3.0f;
    const float top = ridge.base + ridge.swell * wave(fx, ridge.period, ridge.shift) - clump -
                      leaf[static_cast<std::size_t>(x)];
    for (int y = std::max(static_cast<int>(top), 0); y < image.size().y; ++y) {
      const int depth = y - static_cast<int>(top);
      const bool lit = depth < 2 || (depth < 9 && dithered(x + y, y, 0.22f));
      const bool dark = depth > 14 && dithered(x, y, static_cast<float>(depth - 14) / 26.0f);
      image.at(x, y) = ink(lit ? ridge.rim : dark ? ridge.deep : ridge.body);
    }
  }
}

void paint_poplar(Image& image, int x, int base, int height, char rim, char body) {
  for (int y = base - height; y < base; ++y) {
    const float share = static_cast<float>(y - (base - height)) / static_cast<float>(height);
    const int half = static_cast<int>(5.0f * std::min(1.0f, share * 2.2f) * (share > 0.85f ? 0.7f : 1.0f)) +
                     ((y * 7 + x) % 5 == 0 ? 1 : 0);
    for (int dx = -half; dx <= half; ++dx) {
      const int at = ((x + dx) % image.size().x + image.size().x) % image.size().x;
      if (y >= 0) image.at(at, y) = ink(dx < -half / 2 && (y + dx) % 3 != 0 ? rim : body);
    }
  }
}

void paint_cottage(Image& image, int x, int base) {
  const auto box = [&](int left, int top, int width, int height, char colour) {
    for (int y = top; y < top + height; ++y)
      for (int dx = 0; dx < width; ++dx) image.at((x + left + dx) % image.size().x, base + y) = ink(colour);
  };
  for (int row = 0; row < 9; ++row) box(9 - row, -21 + row, 12 + 2 * row, 1, row < 2 ? 'r' : 'm');
  box(2, -12, 26, 12, 'S');
  box(2, -12, 2, 12, 'C');
  box(22, -12, 6, 12, 'M');
  box(6, -9, 5, 4, 'O');
  box(8, -9, 1, 4, 'm');
  box(18, -9, 5, 4, 'y');
  box(20, -9, 1, 4, 'm');
  box(23, -26, 4, 7, 'm');
}

Image paint_far_hedges() {
  Image image({320, 110});
  for (const IVec2 tree : {IVec2{40, 34}, IVec2{52, 26}, IVec2{210, 38}, IVec2{221, 30}, IVec2{232, 24}})
    paint_poplar(image, tree.x, 60, tree.y, 'p', 'M');
  paint_ridge(image, {46, 7, 160, 0.1f, 2.0f, 'p', 'M', 'M'}, 3);
  paint_cottage(image, 120, 60);
  paint_ridge(image, {70, 5, 320, 0.4f, 2.0f, 'v', 'u', 'N'}, 5);
  return image;
}

Image paint_near_hedges() {
  Image image({320, 96});
  paint_ridge(image, {42, 6, 160, 0.7f, 3.0f, 'h', 'g', 'g'}, 7);
  for (int post = 8; post < 320; post += 32)
    for (int y = 46; y < 70; ++y)
      for (int dx = 0; dx < 4; ++dx) image.at(post + dx, y) = ink(dx == 0 ? 'd' : 'b');
  for (const int rail : {51, 60})
    for (int x = 0; x < 320; ++x)
      for (int dy = 0; dy < 3; ++dy) image.at(x, rail + dy) = ink(dy == 0 ? 'd' : dy == 2 ? 'k' : 'b');
  paint_ridge(image, {78, 3, 80, 0.2f, 4.0f, 'h', 'g', 'k'}, 9);
  return image;
}

// Poles tied together in pairs, with beans climbing them.
Image paint_bean_rows() {
  Image image({320, 74});
  vole::Random chance(21);
  const auto dot = [&](int x, int y, char colour) {
    if (y >= 0 && y < 74) image.at(((x % 320) + 320) % 320, y) = ink(colour);
  };
  for (int x = 0; x < 320; x += 40) {
    for (int y = 6; y < 60; ++y) {
      const int lean = (y - 14) * 11 / 46;
      for (const int pole : {x + 14 - lean, x + 14 + lean}) {
        dot(pole, y, 'd');
        dot(pole + 1, y, 'k');
        if (y > 12 && chance.chance(0.45f)) {
          const int leaf = pole + static_cast<int>(chance.below(9)) - 4;
          const bool lit = chance.chance(0.4f);
          for (int dy = 0; dy < 3; ++dy)
            for (int dx = -1 - (dy == 1); dx <= 1 + (dy == 1); ++dx)
              dot(leaf + dx, y + dy, lit && dy == 0 ? 'i' : dx < 0 ? 'h' : 'g');
        }
        if (y > 20 && chance.chance(0.05f))
          for (int dy = 0; dy < 6; ++dy) dot(pole + 3, y + dy, dy < 2 ? 'j' : 'i');
      }
    }
  }
  paint_ridge(image, {62, 2, 160, 0.3f, 3.0f, 'g', 'k', 'k'}, 15);
  return image;
}

// Twigs of the old apple tree that hang into the picture, against the light.
Image paint_leaves() {
  Image image({480, 30});
  vole::Random chance(33);
  const auto leaf = [&](int x, int y, char light, char dark) {
    constexpr std::string_view rows[] = {".#...", "###..", ".###.", ".####", "..##."};
    for (int dy = 0; dy < 5; ++dy)
      for (int dx = 0; dx < 5; ++dx) {
        if (rows[dy][static_cast<std::size_t>(dx)] != '#' || y + dy < 0 || y + dy >= 30) continue;
        image.at(((x + (x % 2 == 0 ? dx : 4 - dx)) % 480 + 480) % 480, y + dy) = ink(dy < 2 ? light : dark);
      }
  };
  for (int twig = 0; twig < 6; ++twig) {
    const int start = twig * 80 + static_cast<int>(chance.below(30));
    const int length = 26 + static_cast<int>(chance.below(26));
    for (int step = 0; step < length; ++step) {
      const int x = start + step;
      const int y = step * (6 + twig % 3 * 2) / 26 - 3 + (step > length / 2 ? (step - length / 2) / 3 : 0);
      if (y < 28 && y >= 0)
        for (int dy = 0; dy < 2; ++dy) image.at(x % 480, y + dy) = ink(dy == 0 ? 'b' : 'k');
      if (step % 4 == 0) {
        const int which = static_cast<int>(chance.below(5));
        leaf(x - 2, y + (step % 8 == 0 ? 1 : -3),
             which == 0  ? 'o'
             : which < 3 ? 'd'
                         : 'h',
             which == 0  ? 'm'
             : which < 3 ? 'b'
                         : 'g');
      }
    }
  }
  return image;
}

// Light round a flame, to be added: a few soft rings.
Image paint_glow() {
  Image image({72, 72});
  for (int y = 0; y < 72; ++y)
    for (int x = 0; x < 72; ++x) {
      const float dx = static_cast<float>(x) - 35.5f, dy = static_cast<float>(y) - 35.5f;
      const float away = std::sqrt(dx * dx + dy * dy) / 36.0f;
      if (away >= 1) continue;
      const auto ring = static_cast<int>((1 - away) * 6);
      constexpr std::uint8_t light[] = {8, 15, 24, 36, 50, 70};
      Colour colour = ink(away < 0.3f ? 'y' : away < 0.65f ? 'O' : 'o');
      colour.a = light[std::min(ring, 5)];
      image.at(x, y) = colour;
    }
  return image;
}

// A square part of the first frame, large enough for a desktop.
Image paint_icon(const Grid& grid) {
  Grid first = grid;
  first.cells.resize(1);
  first.columns = 1;
  const Image vole = paint_grid(first);
  Image image({64, 64}, ink('h'));
  for (int y = 0; y < 64; ++y)
    for (int x = 0; x < 64; ++x) {
      const Colour pixel = vole.at(x / 4, std::min(y / 4 + 1, 15));
      if (y < 40) image.at(x, y) = ink(y < 16 ? 'p' : y < 28 ? 'P' : 'o');
      if (pixel.a != 0) image.at(x, y) = pixel;
    }
  return image;
}

}  // namespace

int main(int argc, char** argv) {
  if (argc != 3) {
    fmt::print(stderr, "usage: paint_allotment <folder of grids> <folder for the PNGs>\n");
    return 2;
  }
  const std::string grids = argv[1];
  const std::string out = argv[2];
  try {
    for (const std::string name : {"vole", "bulb", "earth", "shed", "letters", "lantern", "sign", "magpie",
                                   "hedgehog", "leaf", "mound", "barrow", "pumpkin"})
      vole::write_png(vole::join_path(out, name + ".png"),
                      paint_grid(read_grid(vole::join_path(grids, name + ".txt"))));
    vole::write_png(vole::join_path(out, "sky.png"), paint_sky());
    vole::write_png(vole::join_path(out, "far-hedges.png"), paint_far_hedges());
    vole::write_png(vole::join_path(out, "near-hedges.png"), paint_near_hedges());
    vole::write_png(vole::join_path(out, "bean-rows.png"), paint_bean_rows());
    vole::write_png(vole::join_path(out, "leaves.png"), paint_leaves());
    vole::write_png(vole::join_path(out, "glow.png"), paint_glow());
    vole::write_png(vole::join_path(out, "cellar.png"), paint_cellar());
    vole::write_png(vole::join_path(out, "gate.png"), paint_gate());
    vole::write_png(vole::join_path(out, "lever.png"), paint_lever());
    vole::write_whole(
        vole::join_path(out, "hedgerow.ttf"),
        paint::make_truetype(paint::read_stroke_font(vole::join_path(grids, "hedgerow.txt"), "Hedgerow")));
    vole::write_png(vole::join_path(out, "icon.png"),
                    paint_icon(read_grid(vole::join_path(grids, "vole.txt"))));
  } catch (const std::exception& error) {
    fmt::print(stderr, "{}\n", error.what());
    return 1;
  }
  return 0;
}
