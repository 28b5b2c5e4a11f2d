#include "cellar.hpp"

#include <algorithm>
#include <array>
#include <string_view>

#include "grid.hpp"
#include "vole/base/random.hpp"
#include "vole/level/edges.hpp"

namespace {

using paint::ink;
using vole::Image;
using vole::IVec2;
using vole::Neighbours;

constexpr int tile = 16;
constexpr int columns = 8;

bool has(Neighbours neighbours, int bit) {
  return (neighbours >> bit & 1) != 0;
}

// How far a pixel is from where the wall ends, on which side, and where along it.
struct Rim {
  int depth = tile;
  int along = 0;
  char side = ' ';
};

Rim rim_at(Neighbours neighbours, int x, int y) {
  Rim rim;
  const auto nearer = [&rim](bool open, int depth, int along, char side) {
    if (open && depth < rim.depth) rim = {depth, along, side};
  };
  const int right = tile - 1 - x, below = tile - 1 - y;
  nearer(!has(neighbours, 0), y, x, 't');
  nearer(!has(neighbours, 6), x, y, 'l');
  nearer(!has(neighbours, 2), right, y, 'r');
  nearer(!has(neighbours, 4), below, x, 'b');
  const auto corner = [&](int bit, int side, int other, int dx, int dy) {
    const bool inner = has(neighbours, side) && has(neighbours, other) && !has(neighbours, bit);
    nearer(inner, std::max(dx, dy), std::min(dx, dy) + 3,
           dy >= dx ? (bit == 1 || bit == 7 ? 't' : 'b') : (bit < 4 ? 'r' : 'l'));
  };
  corner(1, 0, 2, right, y);
  corner(3, 2, 4, right, below);
  corner(5, 4, 6, x, below);
  corner(7, 6, 0, x, y);
  return rim;
}

// Field stones laid along the rim, lit from the upper left; packed earth behind them.
char wall_pixel(const Rim& rim, int x, int y) {
  vole::Random chance(static_cast<std::uint64_t>(x * 31 + y * 577 + 9));
  const std::uint32_t speck = chance.below(100);
  if (rim.depth >= 6) return speck < 7 ? 'd' : speck < 18 ? 'k' : 'b';
  if (rim.depth == 0) return 'K';
  if (rim.depth == 5) return 'k';
  // Stones of uneven length; their joints are dark.
  constexpr std::string_view joints = "K.....K....K....";
  if (joints[static_cast<std::size_t>((rim.along + (rim.side == 't' ? 0 : 5)) % tile)] == 'K') return 'K';
  const bool begins =
      joints[static_cast<std::size_t>((rim.along + (rim.side == 't' ? 0 : 5) + tile - 1) % tile)] == 'K';
  if (rim.side == 't')
    return rim.depth == 1             ? (begins ? 'C' : 'S')
           : rim.depth == 4           ? 'N'
           : begins && rim.depth == 2 ? 'S'
                                      : 'M';
  if (rim.side == 'l') return rim.depth <= 2 ? (begins && rim.depth == 1 ? 'S' : 'M') : 'N';
  if (rim.side == 'r') return rim.depth == 4 ? 'M' : 'N';
  return rim.depth == 4 && begins ? 'M' : 'N';
}

void put(Image& image, IVec2 cell, int x, int y, char letter) {
  image.at(cell.x * tile + x, cell.y * tile + y) = ink(letter);
}

// Bricks in the dark, behind everything.
void paint_back(Image& image, IVec2 cell, bool with_gap) {
  for (int y = 0; y < tile; ++y)
    for (int x = 0; x < tile; ++x) {
      const int row = y / 4, along = (x + row % 2 * 4) % 8;
      const bool joint = y % 4 == 3 || along == 7;
      const bool gone = with_gap && row == 1 && x >= 4 && x < 11;
      const bool lit = y % 4 == 0 && along < 6 && (row * 3 + x / 8) % 3 == 0;
      put(image, cell, x, y, gone || joint ? 'K' : lit ? 'M' : 'N');
    }
}

// Still water with a line of light that wanders over it.
void paint_water(Image& image, IVec2 cell, int frame, bool surface) {
  for (int y = 0; y < tile; ++y)
    for (int x = 0; x < tile; ++x) {
      const int glint = (x + frame * 4 + y * 5) % tile;
      char letter = 'u';
      if (y > 3 && y % 5 == 1 && glint < 3) letter = 'v';
      if (surface && y < 3)
        letter = y == 0 ? ((x + frame * 4) % tile < 7 ? 'w' : 'v') : y == 1 ? 'v' : glint < 5 ? 'v' : 'u';
      put(image, cell, x, y, letter);
    }
}

// A shelf board, held at its ends.
void paint_shelf(Image& image, IVec2 cell) {
  constexpr std::array<std::string_view, 6> rows{"yytyyyytyyyyytyy", "tttttdtttttttdtt", "dddddddddddddddd",
                                                 "kkkkkkkkkkkkkkkk", ".kd..........dk.", "..k..........k.."};
  for (int y = 0; y < 6; ++y)
    for (int x = 0; x < tile; ++x)
      put(image, cell, x, y, rows[static_cast<std::size_t>(y)][static_cast<std::size_t>(x)]);
}

void paint_rows(Image& image, IVec2 cell, const std::array<std::string_view, 16>& rows) {
  for (int y = 0; y < tile; ++y)
    for (int x = 0; x < tile; ++x)
      put(image, cell, x, y, rows[static_cast<std::size_t>(y)][static_cast<std::size_t>(x)]);
}

constexpr std::array<std::string_view, 16> crate{
    "................", "..kkkkkkkkkkkk..", ".kytyyytyyytytk.", ".kttdttttdttttk.",
    ".kkkkkkkkkkkkkk.", ".kydtdttttdtdyk.", ".ktdkkkkkkkkdtk.", ".ktdttytttytdtk.",
    ".ktddtttdttddtk.", ".kkkkkkkkkkkkkk.", ".kydtyttdytdtyk.", ".ktdttttttttdtk.",
    ".ktddtdttdtddtk.", ".kkkkkkkkkkkkkk.", ".kdk........kdk.", ".kk..........kk."};
constexpr std::array<std::string_view, 16> jars{
    "................", "................", "................", "..kkkk....kkkk..",
    "..kSCk....kytk..", ".kkMSkk..kkdtkk.", ".krwrrk..kOOyOk.", ".kWrrmk..kyOOok.",
    ".krrrmk..kOOOok.", ".krrmmk..kOOook.", ".krrmmk..kOooOk.", ".kCCCSk..kCCCSk.",
    ".kCSCSk..kCSCSk.", ".krmmmk..kOoook.", ".kkkkkk..kkkkkk.", "................"};
constexpr std::array<std::string_view, 16> roots{
    "..d..kd...d..k..", "..d..kd..kd..d..", "..kd..d..kd..d..", "...d..kd.kd.kd..",
    "...kd..d..d.kd..", "....d..d..d.d...", "....d..kd.kdd...", "....kd..d..d....",
    ".....d..d..d....", ".....d..kd.k....", ".....k...d......", ".........d......",
    ".........kd.....", "..........d.....", "..........k.....", "................"};

constexpr std::array<std::string_view, 16> ladder{
    "..kyk......kyk..", "..ktk......ktk..", "..ktkkkkkkkktk..", "..kdyyytyyyydk..",
    "..kdtttdttttdk..", "..ktkkkkkkkktk..", "..kyk......kyk..", "..ktk......ktk..",
    "..ktk......ktk..", "..kdk......kdk..", "..ktkkkkkkkktk..", "..kyytyyyytyyk..",
    "..kdttttdtttdk..", "..kdkkkkkkkkdk..", "..ktk......ktk..", "..ktk......ktk.."};

}  // namespace

Image paint_cellar() {
  const std::vector<Neighbours>& cases = vole::cases_of(vole::NeighbourSet::eight);
  Image image({columns * tile, 8 * tile});
  for (std::size_t i = 0; i < cases.size(); ++i) {
    const IVec2 cell{static_cast<int>(i) % columns, static_cast<int>(i) / columns};
    for (int y = 0; y < tile; ++y)
      for (int x = 0; x < tile; ++x) put(image, cell, x, y, wall_pixel(rim_at(cases[i], x, y), x, y));
  }
  paint_back(image, {0, 6}, false);
  paint_back(image, {1, 6}, true);
  for (int frame = 0; frame < 4; ++frame) {
    paint_water(image, {frame, 7}, frame, true);
    paint_water(image, {4 + frame, 7}, frame, false);
  }
  paint_shelf(image, {2, 6});
  paint_rows(image, {3, 6}, crate);
  paint_rows(image, {4, 6}, jars);
  paint_rows(image, {5, 6}, roots);
  paint_rows(image, {6, 6}, ladder);
  return image;
}

// Boards between two bars of iron; it goes up into the wall above it.
Image paint_gate() {
  constexpr std::array<int, 3> up{0, 14, 26};
  Image image({3 * tile, 2 * tile});
  for (int frame = 0; frame < 3; ++frame)
    for (int y = 0; y < 2 * tile; ++y)
      for (int x = 3; x < 13; ++x) {
        const int of_gate = y + up[static_cast<std::size_t>(frame)];
        if (of_gate >= 2 * tile) continue;
        const bool bar = of_gate % 12 >= 4 && of_gate % 12 < 7;
        const bool foot = of_gate >= 2 * tile - 2;
        char letter = "kytd"[(x - 3) % 4];
        if (x == 12) letter = 'k';
        if ((of_gate * 7 + x * 3) % 11 == 0 && letter == 't') letter = 'd';
        if (bar) letter = of_gate % 12 == 4 ? 'S' : of_gate % 12 == 5 ? 'M' : 'K';
        if (bar && (x == 4 || x == 11)) letter = of_gate % 12 == 5 ? 'C' : letter;
        if (foot) letter = 'k';
        image.at(frame * tile + x, y) = ink(letter);
      }
  return image;
}

Image paint_lever() {
  constexpr std::array<std::string_view, 16> waiting{
      "................", "................", "..rr............", ".rWrm...........",
      ".rrrm...........", "..mmkk..........", "....kSk.........", ".....kSk........",
      ".....kMSk.......", "......kMSk......", "......KKKKKK....", ".....KSSSSSMK...",
      "....KSMMMMMMNK..", "....KMMNNNNNNK..", "....KKKKKKKKKK..", "................"};
  Image image({2 * tile, tile});
  for (int y = 0; y < tile; ++y)
    for (int x = 0; x < tile; ++x) {
      image.at(x, y) = ink(waiting[static_cast<std::size_t>(y)][static_cast<std::size_t>(x)]);
      // The handle lies to the other side, the foot stays.
      const int from = y < 10 ? 17 - x : x;
      const char letter =
          from < tile ? waiting[static_cast<std::size_t>(y)][static_cast<std::size_t>(from)] : '.';
      image.at(tile + x, y) = ink(letter);
    }
  return image;
}
