// Paints the milk round's pictures: tiles, cottages and trees by rule, what moves from the grids of this folder, letters from the
// allotment's.
//
//   paint_milkround <folder of grids> <folder of the allotment's grids> <folder for the PNGs>
#include <fmt/core.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>
#include <functional>
#include <string_view>
#include <utility>

#include "part.hpp"
#include "vole/base/files.hpp"
#include "vole/base/random.hpp"

namespace {

using paint::dithered;
using paint::Open;
using paint::Part;
using vole::Image;
using vole::IVec2;

constexpr int tile = 16;

// Short strokes here and there.
void speckle(Part& cell, vole::Random& chance, int count, char letter, int longest) {
  for (int i = 0; i < count; ++i) {
    const int x = static_cast<int>(chance.below(tile)), y = static_cast<int>(chance.below(tile));
    const int length = 1 + static_cast<int>(chance.below(static_cast<std::uint32_t>(longest)));
    cell.box(x, y, length, 1, letter);
  }
}

// Trodden earth between kerbs of grass, with wheel marks and stones.
void paint_lane(Part cell, int number, std::uint64_t seed) {
  const Open open(number);
  vole::Random chance(seed);
  cell.fill([&](int, int) { return 't'; });
  speckle(cell, chance, 14, 'y', 2);
  speckle(cell, chance, 7, 'd', 1);
  for (int i = 0; i < 4; ++i) {
    const int x = 3 + static_cast<int>(chance.below(9)), y = 3 + static_cast<int>(chance.below(9));
    cell.box(x, y, 2, 1, 'C');
    cell.dot(x + 1, y + 1, 'd');
  }
  // A verge of uneven grass on each open side; its shadow falls to the lower right.
  const auto verge = [&](bool is_open, const auto& at) {
    for (int i = 0; i < tile && is_open; ++i) {
      const int deep = 1 + static_cast<int>(chance.below(3));
      for (int k = 0; k < deep; ++k) at(i, k, k + 1 < deep ? 'h' : 'i');
      at(i, deep, 'd');
    }
  };
  verge(open.above, [&](int i, int k, char letter) { cell.dot(i, k, letter); });
  verge(open.left, [&](int i, int k, char letter) { cell.dot(k, i, letter); });
  verge(open.below, [&](int i, int k, char letter) { cell.dot(i, 15 - k, letter == 'd' ? 'y' : letter); });
  verge(open.right, [&](int i, int k, char letter) { cell.dot(15 - k, i, letter == 'd' ? 'y' : letter); });
  // The corner of what lies slanted across.
  for (const IVec2 corner : {IVec2{0, 0}, IVec2{15, 0}, IVec2{0, 15}, IVec2{15, 15}})
    cell.dot(corner.x, corner.y, 'i');
}

// A clipped hedge, seen from above and in front: a crown of leaves, and its shaded side where it is open below.
void paint_hedge(Part cell, int number) {
  const Open open(number);
  cell.fill([&](int x, int y) {
    const int left = open.left ? 1 : 0, right = open.right ? 14 : 15, top = open.above ? 1 : 0;
    const int front = open.below ? 10 : 16;
    if (x < left || x > right || y < top) return 'g';
    if (y >= front) return y == 15 ? 'k' : dithered(x, y, 0.4f) ? 'h' : 'g';
    const int leaf = (x * 7 + y * 5 + (x / 3) * (y / 2)) % 9;
    if (y == front - 1 && open.below) return 'h';
    if (leaf == 0) return 'j';
    if (leaf < 4) return 'i';
    return leaf == 8 ? 'g' : 'h';
  });
  if (open.above)
    for (int x = 1; x < 15; ++x) cell.dot(x, 1, x % 3 == 0 ? 'j' : 'i');
  if (open.left) cell.box(1, 2, 1, open.below ? 8 : 14, 'i');
}

// A brick wall with a coping of stone.
void paint_wall(Part cell, int number) {
  const Open open(number);
  cell.fill([&](int x, int y) {
    if (open.below && y >= 7) {
      const int course = (y - 7) / 3, along = (x + course * 4) % 8;
      if (y == 15) return 'k';
      if ((y - 7) % 3 == 2 || along == 7) return 'b';
      return (x * 3 + course * 5) % 11 < 3 ? 'o' : 'd';
    }
    return (x + y * 2) % 13 == 0 ? 'M' : 'S';
  });
  const int end = open.below ? 6 : 15;
  if (open.above) cell.box(0, 0, 16, 1, 'C');
  if (open.left) cell.box(0, 0, 1, end + 1, 'C');
  if (open.right) cell.box(15, 0, 1, end + 1, 'M');
  if (open.below) cell.box(0, 6, 16, 1, 'M');
  for (int x = 7; x < 16; x += 8) cell.box(x, 1, 1, end - 1, 'M');
}

// A pond with a bank of reeds and light on it.
void paint_pond(Part cell, int number, int frame) {
  const Open open(number);
  vole::Random chance(static_cast<std::uint64_t>(number) + 3);
  cell.fill([&](int x, int y) {
    const int glint = (x + frame * 4 + y * 5) % tile;
    return y % 5 == 2 && glint < 5 ? (glint == 2 ? 'w' : 'v') : y % 5 == 4 && glint < 3 ? 'v' : 'u';
  });
  const auto bank = [&](bool is_open, const auto& at) {
    for (int i = 0; i < tile && is_open; ++i) {
      const int deep = 2 + static_cast<int>(chance.below(2));
      for (int k = 0; k < deep; ++k) at(i, k, k + 1 < deep ? (i % 3 ? 'i' : 'j') : 'g');
    }
  };
  bank(open.above, [&](int i, int k, char letter) { cell.dot(i, k, letter); });
  bank(open.left, [&](int i, int k, char letter) { cell.dot(k, i, letter); });
  bank(open.below, [&](int i, int k, char letter) { cell.dot(i, 15 - k, letter); });
  bank(open.right, [&](int i, int k, char letter) { cell.dot(15 - k, i, letter); });
}

// Grass of a garden: tufts, and flowers in some.
void paint_grass(Part cell, std::uint64_t seed, std::string_view flowers) {
  vole::Random chance(seed);
  cell.fill([&](int, int) { return 'i'; });
  speckle(cell, chance, 8, 'h', 2);
  for (int i = 0; i < 9; ++i) {
    const int x = static_cast<int>(chance.below(15)), y = 1 + static_cast<int>(chance.below(13));
    cell.dot(x, y, 'j');
    cell.dot(x, y + 1, 'h');
  }
  for (const char flower : flowers) {
    const int x = 1 + static_cast<int>(chance.below(13)), y = 2 + static_cast<int>(chance.below(11));
    cell.dot(x, y, flower);
    cell.dot(x + 1, y, flower);
    cell.dot(x, y + 1, 'g');
  }
}

Image paint_tiles() {
  Image image({8 * tile, 10 * tile});
  const auto cell = [&](int x, int y) { return Part(image, {x * tile, y * tile}, {tile, tile}); };
  for (int number = 0; number < 16; ++number) {
    const int x = number % 8, y = number / 8;
    paint_lane(cell(x, y), number, static_cast<std::uint64_t>(number) + 11);
    paint_hedge(cell(x, 2 + y), number);
    paint_wall(cell(x, 4 + y), number);
    paint_pond(cell(x, 6 + y), number, number % 4);
  }
  constexpr std::array<std::string_view, 5> gardens{"", "WWO", "rrP", "", "PpW"};
  for (int i = 0; i < 5; ++i)
    paint_grass(cell(i, 8), static_cast<std::uint64_t>(i) + 5, gardens[static_cast<std::size_t>(i)]);
  paint_lane(cell(5, 8), 15, 4);
  paint_lane(cell(6, 8), 15, 9);
  return image;
}

// What a cottage's roof and walls are made of: light, middle, dark.
struct Look {
  std::array<char, 3> roof;
  std::array<char, 2> walls;
  char door;
};

// 32 wide and 40 high: a roof that hangs over, a door on the left, a window that is lit or dark, and a chimney.
void paint_cottage(Part part, const Look& look, bool lit) {
  const auto [light, middle, dark] = look.roof;
  // Walls.
  part.box(2, 22, 28, 18, 'k');
  part.box(3, 22, 26, 17, look.walls[0]);
  part.box(24, 22, 5, 17, look.walls[1]);
  part.box(3, 37, 26, 2, 'M');
  part.box(3, 22, 26, 2, look.walls[1]);
  for (const int x : {3, 14, 28}) part.box(x, 23, 1, 14, 'b');
  // Roof: rows of straw or tiles, lit from the upper left.
  for (int y = 4; y < 23; ++y) {
    const int cut = std::max(0, 5 - (y - 4) / 3);
    for (int x = cut; x < 32 - cut; ++x) {
      const bool rim = x == cut || x == 31 - cut || y == 4 || y == 22;
      const bool joint = y % 4 == 2 || (x + (y / 4) * 3) % 6 == 0;
      const bool shaded = x > 22 - (y - 12) / 3;
      part.dot(x, y, rim ? 'k' : joint ? (shaded ? dark : middle) : shaded ? middle : light);
    }
  }
  part.box(6, 5, 20, 1, light);
  // Chimney, and its shadow on the roof.
  part.box(22, 0, 6, 10, 'k');
  part.box(23, 1, 4, 8, 'd');
  part.box(23, 1, 1, 8, 'o');
  part.box(22, 0, 6, 2, 'b');
  part.box(28, 6, 2, 5, dark);
  // Door, with a step of stone before it.
  part.box(5, 25, 8, 13, 'k');
  part.box(6, 26, 6, 12, look.door);
  part.box(6, 26, 6, 1, 'C');
  part.box(7, 28, 4, 3, lit ? 'y' : 'u');
  part.box(11, 32, 1, 2, 'O');
  part.box(4, 38, 10, 2, 'S');
  part.box(4, 38, 10, 1, 'C');
  // Window with a box of flowers.
  part.box(17, 26, 10, 8, 'k');
  part.box(18, 27, 8, 6, lit ? 'O' : 'u');
  if (lit) part.box(18, 27, 8, 3, 'y');
  if (!lit) part.box(18, 27, 3, 2, 'v');
  part.box(21, 27, 1, 6, 'W');
  part.box(18, 29, 8, 1, 'W');
  part.box(17, 34, 10, 2, 'd');
  for (int x = 17; x < 27; ++x) part.dot(x, 33 + x % 2, x % 3 == 0 ? 'r' : x % 3 == 1 ? 'i' : 'P');
}

Image paint_cottages() {
  constexpr std::array<Look, 3> looks{Look{{'y', 't', 'd'}, {'C', 'S'}, 'v'},
                                      Look{{'S', 'M', 'N'}, {'W', 'C'}, 'm'},
                                      Look{{'o', 'r', 'm'}, {'y', 't'}, 'h'}};
  Image image({3 * 32, 2 * 40});
  for (int i = 0; i < 3; ++i)
    for (int lit = 0; lit < 2; ++lit)
      paint_cottage(Part(image, {i * 32, lit * 40}, {32, 40}), looks[static_cast<std::size_t>(i)], lit == 1);
  return image;
}

// An apple tree of 24 x 32: a round crown in three tones, with fruit.
Image paint_tree() {
  Image image({24, 32});
  Part part(image, {0, 0}, {24, 32});
  part.box(10, 20, 4, 11, 'k');
  part.box(11, 20, 2, 11, 'd');
  part.box(11, 20, 1, 11, 't');
  part.box(8, 30, 8, 1, 'k');
  for (int y = 0; y < 25; ++y)
    for (int x = 0; x < 24; ++x) {
      const int dx = 2 * x - 23, dy = 2 * y - 24, square = dx * dx + dy * dy;
      const int ragged = ((x * 5 + y * 3) % 7) * 12;
      if (square > 560 - ragged) continue;
      const bool rim = square > 470 - ragged;
      const int light = -dx - dy + ((x * 7 + y * 11) % 5) * 4;
      part.dot(x, y, rim ? 'g' : light > 18 ? 'j' : light > -2 ? 'i' : 'h');
    }
  for (const IVec2 apple : {IVec2{6, 9}, {13, 6}, {16, 13}, {9, 16}, {4, 14}}) {
    part.box(apple.x, apple.y, 2, 2, 'r');
    part.dot(apple.x, apple.y, 'o');
    part.dot(apple.x + 1, apple.y + 1, 'm');
  }
  return image;
}

// The frame of the hurry bar, the bar itself, and the board they are on.
Image paint_board() {
  Image image({320, 20});
  Part part(image, {0, 0}, {320, 20});
  part.fill([](int x, int y) {
    if (y == 0) return 't';
    if (y >= 18) return 'k';
    return (x * 3 + y * 7 + (x / 40) * 5) % 23 == 0 ? 'b' : y % 6 == 5 ? 'b' : 'd';
  });
  for (const int x : {2, 79, 159, 239, 317}) {
    part.box(x, 3, 1, 2, 'y');
    part.box(x, 13, 1, 2, 'y');
  }
  return image;
}

// Another's float: other colours, the same strokes.
Image paint_float(const std::string& grids, std::string_view from, std::string_view to) {
  paint::Grid grid = paint::read_grid(grids + "/float.txt");
  for (auto& cell : grid.cells)
    for (std::string& row : cell)
      for (char& letter : row)
        if (const std::size_t at = from.find(letter); at != from.npos) letter = to[at];
  return paint::paint_grid(grid);
}

}  // namespace

int main(int argc, char** argv) {
  if (argc != 4) {
    fmt::print(
        stderr,
        "usage: paint_milkround <folder of grids> <folder of the allotment's grids> <folder for the PNGs>\n");
    return 2;
  }
  try {
    const std::string grids = argv[1], shared = argv[2], out = argv[3];
    const auto save = [&](const char* name, const Image& image) {
      vole::write_png(vole::join_path(out, std::string(name) + ".png"), image);
    };
    save("village", paint_tiles());
    save("cottage", paint_cottages());
    save("tree", paint_tree());
    save("board", paint_board());
    save("float", paint_float(grids, "", ""));
    save("other-float", paint_float(grids, "vwu", "rPm"));
    for (const char* name : {"dog", "postwoman", "step", "bottle"})
      save(name, paint::paint_grid(paint::read_grid(grids + "/" + name + ".txt")));
    save("letters", paint::paint_grid(paint::read_grid(shared + "/letters.txt")));
  } catch (const std::exception& error) {
    fmt::print(stderr, "{}\n", error.what());
    return 1;
  }
  return 0;
}
