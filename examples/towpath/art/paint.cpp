// Paints the towpath's pictures: tiles and skies by rule, and from the allotment's grids what both games have.
//
//   paint_towpath <folder of the allotment's grids> <folder for the PNGs>
#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>
#include <string_view>

#include "part.hpp"
#include "vole/base/files.hpp"
#include "vole/base/random.hpp"
#include "vole/base/trig.hpp"
#include "vole/level/edges.hpp"

namespace {

using paint::dithered;
using paint::ink;
using paint::Open;
using paint::Part;
using vole::Image;
using vole::IVec2;

constexpr int tile = 16;

float wave(float x, float period, float shift) {
  return vole::sin_degrees((x / period + shift) * 360.0f);
}

// A cell of the tiles.
Part cell_of(Image& image, IVec2 cell) {
  return {image, cell * tile, {tile, tile}};
}

// Packed earth with a few pebbles and roots; `seed` says where.
char earth(int x, int y, std::uint64_t seed) {
  vole::Random chance(seed * 7919 + static_cast<std::uint64_t>(y * 16 + x) * 131);
  const std::uint32_t speck = chance.below(100);
  return speck < 6 ? 'd' : speck < 15 ? 'k' : 'b';
}

void pebble(Part& cell, int x, int y) {
  cell.box(x, y, 3, 2, 'M');
  cell.dot(x, y, 'S');
  cell.dot(x + 1, y, 'S');
  cell.dot(x + 2, y + 1, 'N');
}

void paint_bank(Image& image, IVec2 at, int number, std::uint64_t seed) {
  Part cell = cell_of(image, at);
  const Open open(number);
  cell.fill([&](int x, int y) { return earth(x, y, seed); });
  if (seed % 3 == 1) pebble(cell, 3 + static_cast<int>(seed % 7), 9);
  if (seed % 3 == 2) pebble(cell, 9 - static_cast<int>(seed % 5), 7);
  // The sides of the bank, held by stakes.
  for (int y = 0; y < tile; ++y) {
    if (open.left) {
      cell.dot(0, y, 'k');
      cell.dot(1, y, y % 5 == 0 ? 'k' : 't');
      cell.dot(2, y, y % 5 == 0 ? 'k' : 'd');
    }
    if (open.right) {
      cell.dot(15, y, 'k');
      cell.dot(14, y, y % 5 == 0 ? 'k' : 'b');
      cell.dot(13, y, y % 5 == 0 ? 'k' : 'd');
    }
  }
  if (open.below) cell.box(0, 15, 16, 1, 'k');
  if (!open.above) return;
  // Turf: blades of uneven length, lit at their tips.
  vole::Random chance(seed + 40);
  for (int x = 0; x < tile; ++x) {
    const int length = 4 + static_cast<int>(chance.below(4));
    for (int y = 0; y < length; ++y)
      cell.dot(x, y, y == 0 ? (chance.chance(0.5f) ? 'j' : 'i') : y < 3 ? 'i' : y < length - 1 ? 'h' : 'g');
  }
  // Trodden in the middle of the path.
  for (int x = 2; x < 14; ++x)
    if (chance.chance(0.35f)) cell.dot(x, 0, 't');
}

// Dressed stone in courses.
void paint_stone(Image& image, IVec2 at, int number) {
  Part cell = cell_of(image, at);
  const Open open(number);
  cell.fill([&](int x, int y) {
    const int course = y / 8, along = (x + course * 8) % 16;
    if (y % 8 == 7 || along == 15) return 'N';
    if (y % 8 == 0 || along == 0) return 'S';
    return (x * 7 + y * 3) % 11 == 0 ? 'N' : 'M';
  });
  if (open.above) {
    cell.box(0, 0, 16, 1, 'C');
    cell.box(0, 1, 16, 2, 'S');
    cell.box(0, 3, 16, 1, 'N');
  }
  if (open.left) cell.box(0, 0, 1, 16, open.above ? 'S' : 'K');
  if (open.right) cell.box(15, 0, 1, 16, 'K');
  if (open.below) cell.box(0, 15, 16, 1, 'K');
}

void paint_boards(Image& image, IVec2 at, bool beam) {
  Part cell = cell_of(image, at);
  cell.box(0, 0, 16, 1, beam ? 'W' : 'y');
  cell.box(0, 1, 16, beam ? 5 : 3, beam ? 'C' : 't');
  cell.box(0, beam ? 6 : 4, 16, 2, beam ? 'S' : 'd');
  cell.box(0, beam ? 8 : 6, 16, 1, 'k');
  for (int x = 3; x < 16 && !beam; x += 5) cell.box(x, 1, 1, 4, 'd');
}

void paint_post(Image& image, IVec2 at) {
  Part cell = cell_of(image, at);
  for (int y = 0; y < tile; ++y) {
    cell.dot(5, y, 'k');
    cell.box(6, y, 1, 1, 't');
    cell.box(7, y, 2, 1, 'd');
    cell.dot(9, y, 'b');
    cell.dot(10, y, 'k');
  }
}

void paint_crate(Image& image, IVec2 at) {
  Part cell = cell_of(image, at);
  cell.box(0, 0, 16, 16, 'k');
  cell.box(1, 1, 14, 14, 'd');
  for (const int y : {1, 6, 11}) {
    cell.box(1, y, 14, 1, 'y');
    cell.box(1, y + 1, 14, 2, 't');
    cell.box(1, y + 4, 14, 1, 'k');
  }
  for (const int x : {2, 12}) {
    cell.box(x, 1, 2, 14, 't');
    cell.box(x, 1, 1, 14, 'y');
  }
}

void paint_reeds(Image& image, IVec2 at, bool bent) {
  Part cell = cell_of(image, at);
  for (int stalk = 0; stalk < 5; ++stalk) {
    const int x = 1 + stalk * 3, top = 1 + (stalk * 5) % 7;
    for (int y = top; y < tile; ++y) {
      const int lean = bent ? (16 - y) * (stalk % 2 ? 3 : -2) / 12 : 0;
      cell.dot(x + lean, y, stalk % 2 ? 'h' : 'g');
      if (y > top + 3) cell.dot(x + lean + 1, y, 'g');
      if (y < top + 4 && stalk % 2 == 0) cell.box(x + lean, y, 2, 1, y == top ? 't' : 'd');
    }
  }
}

void paint_nettles(Image& image, IVec2 at) {
  Part cell = cell_of(image, at);
  for (int stalk = 0; stalk < 4; ++stalk) {
    const int x = 2 + stalk * 4, top = 3 + (stalk * 3) % 5;
    for (int y = top; y < tile; ++y) {
      cell.dot(x, y, 'g');
      if ((y - top) % 3 == 1) {
        cell.box(x - 2, y, 2, 1, 'h');
        cell.box(x + 1, y, 2, 1, 'i');
        cell.dot(x - 1, y - 1, 'i');
      }
    }
    cell.dot(x, top, 'j');
  }
}

void paint_fence(Image& image, IVec2 at) {
  Part cell = cell_of(image, at);
  for (const int y : {5, 10}) {
    cell.box(0, y, 16, 1, 'd');
    cell.box(0, y + 1, 16, 2, 'b');
    cell.box(0, y + 3, 16, 1, 'k');
  }
  cell.box(6, 1, 4, 15, 'b');
  cell.box(6, 1, 1, 15, 't');
  cell.box(7, 1, 1, 15, 'd');
  cell.box(9, 2, 1, 14, 'k');
}

// A narrow boat: a plum hull with a cream line, a green cabin above it.
void paint_hull(Image& image, IVec2 at, int bow, int stern) {
  Part cell = cell_of(image, at);
  cell.fill([&](int x, int y) {
    const int cut = bow ? std::max(0, y - 2) * 3 / 4 : 0, end = stern ? 16 - std::max(0, y - 6) / 2 : 16;
    if (x < cut || x >= end || y < (bow ? std::max(0, 2 - x / 3) : 1)) return '.';
    if (x == cut || x == end - 1 || y == 15) return 'K';
    if (y <= 2) return 'r';
    if (y == 4) return 'C';
    return y < 9 ? 'm' : (x + y) % 6 == 0 ? 'm' : 'K';
  });
}

void paint_cabin(Image& image, IVec2 at, bool end, bool window) {
  Part cell = cell_of(image, at);
  cell.box(0, 0, 16, 16, 'g');
  cell.box(0, 0, 16, 1, 'h');
  cell.box(0, 13, 16, 1, 'O');
  cell.box(0, 14, 16, 2, 'K');
  for (const int x : {1, 14}) cell.box(x, 2, 1, 10, 'h');
  if (end) cell.box(0, 0, 2, 16, 'h');
  if (!window) return;
  for (int y = 3; y < 11; ++y)
    for (int x = 4; x < 12; ++x) {
      const int dx = 2 * x - 15, dy = 2 * y - 13;
      const int square = dx * dx + dy * dy;
      if (square <= 70) cell.dot(x, y, square > 42 ? 't' : y < 6 ? 'y' : x == 7 ? 'o' : 'O');
    }
}

void paint_roof(Image& image, IVec2 at) {
  Part cell = cell_of(image, at);
  cell.box(0, 3, 16, 1, 'C');
  cell.box(0, 4, 16, 3, 'r');
  cell.box(0, 7, 16, 1, 'm');
  cell.box(0, 8, 16, 8, 'g');
  cell.box(0, 8, 16, 1, 'K');
}

// Still water with a line of light that wanders over it.
void paint_water(Image& image, IVec2 at, int frame, bool surface) {
  Part cell = cell_of(image, at);
  cell.fill([&](int x, int y) {
    const int glint = (x + frame * 4 + y * 5) % tile;
    if (surface && y == 0) return (x + frame * 4) % tile < 6 ? 'w' : 'v';
    if (surface && y == 1) return glint < 5 ? 'v' : 'u';
    return y % 6 == 1 && glint < 4 ? 'v' : 'u';
  });
}

Image paint_tiles() {
  Image image({8 * tile, 8 * tile});
  for (int number = 0; number < 16; ++number) {
    paint_bank(image, {number % 8, number / 8}, number, static_cast<std::uint64_t>(number % 2 ? 3 : 6));
    paint_stone(image, {number % 8, 3 + number / 8}, number);
  }
  for (int i = 0; i < 3; ++i) paint_bank(image, {i, 2}, 15, static_cast<std::uint64_t>(10 + i * 4));
  for (int i = 0; i < 2; ++i) paint_bank(image, {3 + i, 2}, 14, static_cast<std::uint64_t>(20 + i * 5));
  paint_boards(image, {0, 5}, false);
  paint_post(image, {1, 5});
  paint_crate(image, {2, 5});
  paint_reeds(image, {3, 5}, false);
  paint_reeds(image, {4, 5}, true);
  paint_nettles(image, {5, 5});
  paint_fence(image, {6, 5});
  paint_boards(image, {7, 5}, true);
  paint_hull(image, {0, 6}, 1, 0);
  paint_hull(image, {1, 6}, 0, 0);
  paint_hull(image, {2, 6}, 0, 1);
  paint_cabin(image, {3, 6}, true, false);
  paint_cabin(image, {4, 6}, false, false);
  paint_cabin(image, {5, 6}, false, true);
  paint_roof(image, {6, 6});
  paint_hull(image, {7, 6}, 0, 0);
  for (int frame = 0; frame < 4; ++frame) {
    paint_water(image, {frame, 7}, frame, true);
    paint_water(image, {4 + frame, 7}, frame, false);
  }
  return image;
}

// Late dusk: night above, the last light low over the water, a thin moon.
Image paint_sky() {
  constexpr std::string_view bands = "KNNMpPo";
  constexpr std::array<int, 7> starts{0, 14, 40, 66, 92, 112, 124};
  Image image({320, 180});
  for (int y = 0; y < 180; ++y)
    for (int x = 0; x < 320; ++x) {
      std::size_t band = 0;
      while (band + 1 < starts.size() && y >= starts[band + 1]) ++band;
      const int next = band + 1 < starts.size() ? starts[band + 1] : 220;
      const float share = static_cast<float>(y - starts[band]) / static_cast<float>(next - starts[band]);
      const bool later = band + 1 < bands.size() && dithered(x, y, (share - 0.4f) * 1.7f);
      image.at(x, y) = ink(bands[later ? band + 1 : band]);
    }
  vole::Random chance(5);
  for (int i = 0; i < 44; ++i) {
    const int x = static_cast<int>(chance.below(320)), y = static_cast<int>(chance.below(70));
    image.at(x, y) = ink(chance.chance(0.3f) ? 'W' : 'S');
  }
  for (int y = -9; y <= 9; ++y)
    for (int x = -9; x <= 9; ++x)
      if (x * x + y * y <= 76 && (x - 5) * (x - 5) + (y + 3) * (y + 3) > 70)
        image.at(74 + x, 34 + y) = ink(x < -5 ? 'C' : 'W');
  return image;
}

void paint_row(Image& image, float base, float period, char rim, char body, std::uint64_t seed) {
  vole::Random chance(seed);
  for (int x = 0; x < image.size().x; ++x) {
    const auto fx = static_cast<float>(x);
    const float top = base + 4 * wave(fx, period, 0.3f) - 5 * std::abs(wave(fx, 40, 0.1f)) -
                      3 * std::abs(wave(fx, 16, 0.4f)) - chance.within(0, 2);
    for (int y = std::max(static_cast<int>(top), 0); y < image.size().y; ++y) {
      const int depth = y - static_cast<int>(top);
      image.at(x, y) = ink(depth < 2 || (depth < 8 && dithered(x + y, y, 0.2f)) ? rim : body);
    }
  }
}

// Willows on the far bank, their branches hanging.
void paint_willow(Image& image, int x, int base, int height) {
  const auto dot = [&](int at, int y, char letter) {
    if (y >= 0 && y < image.size().y) image.at(((at % 320) + 320) % 320, y) = ink(letter);
  };
  for (int y = base - height / 2; y < base; ++y)
    for (int dx = -1; dx <= 1; ++dx) dot(x + dx, y, 'K');
  // A crown in three clumps, lit from the left.
  const IVec2 clumps[] = {
      {-height / 4, -height * 3 / 5}, {height / 5, -height * 5 / 8}, {0, -height * 4 / 5}};
  for (const IVec2 clump : clumps) {
    const int radius = height / 4;
    for (int dy = -radius; dy <= radius; ++dy)
      for (int dx = -radius - 3; dx <= radius + 3; ++dx)
        if (dx * dx * 3 / 4 + dy * dy < radius * radius)
          dot(x + clump.x + dx, base + clump.y + dy,
              dithered(x + dx, dy + 64, static_cast<float>(-dx - dy) / 16 + 0.2f) ? 'M' : 'N');
  }
  // And what hangs from it.
  vole::Random chance(static_cast<std::uint64_t>(x));
  for (int strand = -height / 2; strand <= height / 2; strand += 2) {
    const int top = base - height / 2 - 4 + std::abs(strand) / 5,
              reach = 8 + static_cast<int>(chance.below(static_cast<std::uint32_t>(height / 3)));
    for (int y = top; y < std::min(top + reach, base); ++y) dot(x + strand, y, strand % 3 == 0 ? 'M' : 'N');
  }
}

Image paint_far_bank() {
  Image image({320, 132});
  for (const IVec2 tree : {IVec2{30, 46}, IVec2{140, 58}, IVec2{170, 40}, IVec2{270, 52}})
    paint_willow(image, tree.x, 72, tree.y);
  paint_row(image, 66, 160, 'M', 'N', 3);
  return image;
}

// The canal: dark, with the sky's last light in it.
Image paint_canal() {
  Image image({320, 92});
  vole::Random chance(9);
  for (int y = 0; y < 92; ++y)
    for (int x = 0; x < 320; ++x)
      image.at(x, y) = ink(y < 2 ? 'K' : dithered(x, y, static_cast<float>(y) / 90) ? 'N' : 'u');
  for (int i = 0; i < 90; ++i) {
    const int y = 4 + static_cast<int>(chance.below(56)), length = 3 + static_cast<int>(chance.below(14));
    const auto start = static_cast<int>(chance.below(320));
    for (int x = 0; x < length; ++x)
      image.at((start + x) % 320, y) = ink(y < 24 ? (i % 3 == 0 ? 'o' : 'p') : i % 4 == 0 ? 'p' : 'v');
  }
  return image;
}

Image paint_lamp() {
  Image image({12, 40});
  const auto box = [&](int x, int y, int width, int height, char letter) {
    for (int dy = 0; dy < height; ++dy)
      for (int dx = 0; dx < width; ++dx) image.at(x + dx, y + dy) = ink(letter);
  };
  box(5, 11, 3, 29, 'K');
  box(5, 11, 1, 29, 'M');
  box(3, 37, 7, 3, 'K');
  box(3, 37, 1, 3, 'M');
  box(2, 1, 9, 2, 'K');
  box(5, 0, 3, 1, 'K');
  box(1, 3, 11, 1, 'K');
  box(2, 4, 9, 6, 'K');
  box(3, 4, 7, 6, 'O');
  box(4, 5, 5, 4, 'y');
  box(5, 5, 2, 3, 'W');
  box(3, 10, 7, 1, 'K');
  return image;
}

Image paint_berry() {
  Image image({36, 12});
  for (int frame = 0; frame < 3; ++frame) {
    const auto dot = [&](int x, int y, char letter) { image.at(frame * 12 + x, y) = ink(letter); };
    for (int y = 3; y < 12; ++y)
      for (int x = 1; x < 11; ++x) {
        const int dx = 2 * x - 11, dy = 2 * y - 14;
        const int square = dx * dx + dy * dy;
        if (square > 90) continue;
        const bool drupe = (x + (y / 2 % 2)) % 3 == 0 && y % 2 == 0;
        dot(x, y, square > 66 ? 'K' : drupe ? 'P' : dx + dy < -4 ? 'p' : 'm');
      }
    for (int x = 3; x < 9; ++x) dot(x, 3, x % 2 ? 'i' : 'h');
    dot(5, 1, 'h');
    dot(6, 2, 'h');
    dot(4, 2, 'i');
    if (frame > 0) dot(4, 5, 'W');
    if (frame > 1) {
      dot(3, 5, 'P');
      dot(5, 5, 'P');
      dot(4, 4, 'P');
      dot(4, 6, 'P');
    }
  }
  return image;
}

}  // namespace

int main(int argc, char** argv) {
  if (argc != 3) {
    fmt::print(stderr, "usage: paint_towpath <folder of the allotment's grids> <folder for the PNGs>\n");
    return 2;
  }
  const std::string grids = argv[1], out = argv[2];
  const auto write = [&out](const std::string& name, const Image& image) {
    vole::write_png(vole::join_path(out, name + ".png"), image);
  };
  try {
    for (const std::string name : {"vole", "lantern", "letters"})
      write(name, paint::paint_grid(paint::read_grid(vole::join_path(grids, name + ".txt"))));
    write("bank", paint_tiles());
    write("sky", paint_sky());
    write("far-bank", paint_far_bank());
    write("canal", paint_canal());
    write("street-lamp", paint_lamp());
    write("berry", paint_berry());
  } catch (const std::exception& error) {
    fmt::print(stderr, "{}\n", error.what());
    return 1;
  }
  return 0;
}
