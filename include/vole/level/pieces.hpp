// Levels that are put together of pieces while the game runs. A piece is a level like any other, with openings where it joins
// the next. In levels/NAME.level.toml:
//
//   [[openings]]                             # of a piece, and of the level that goes on
//   name = "path"                            # joins one of the same name in the side that faces it
//   side = "right"
//   at = 9                                   # the row; of "top" and "bottom" the column
//
//   [pieces]                                 # lists to choose from
//   banks = ["meadow", "lock", { piece = "bridge", weight = 0.3 }]
//
//   [endless]                                # the level goes on and on at one of its sides
//   side = "right"
//   pieces = "banks"                         # by chance, none twice running where another fits
//   ahead = 320                              # pixels beyond what the camera shows: as much as it shows when left out
//   behind = 320                             # so far behind it pieces leave, with all that came with them
//   seed = 7                                 # by the scene's own chance when left out
//
// Of a piece count its cells, places, zones and paths. Its layers are found by name in the level that it is put into, which has
// all of its tilesets, and says how they look. Where a piece has nothing, what was there stays.
//
// So that positions stay exact, the origin of an endless level moves along: whatever is described as a position() moves with it.
#pragma once

#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/level/level_side.hpp"

namespace vole {

struct LevelOpening {
  std::string name;
  LevelSide side = LevelSide::left;
  int at = 0;  // the row or column
  FilePosition where;
};

struct PieceList {
  struct Item {
    Located<std::string> piece;
    double weight = 1;
  };
  std::string name;
  FilePosition where;
  std::vector<Item> items;  // at least one
};

struct EndlessLevel {
  LevelSide side = LevelSide::right;
  std::string pieces;                // a list
  std::optional<int> ahead, behind;  // pixels
  std::optional<std::uint64_t> seed;
  FilePosition where;
};

// Of a piece, and of a level that is endless, along the way that it goes on: pixels.
inline constexpr int longest_piece = 16384;
inline constexpr int most_pixels_ahead = 8192;

class Level;

// Of a size or place in cells, the part along the way that a side lies, and the part across.
int along(LevelSide side, IVec2 cells);
int across(LevelSide side, IVec2 cells);
// So many cells along the way, none across.
IVec2 way(LevelSide side, int cells);

// Finds a piece by its name; nullptr when it could not be read.
using FindPiece = std::function<const Level*(std::string_view)>;

// A piece that joins, and the cell of the level that its top left comes to lie in.
struct NextPiece {
  const PieceList::Item* item = nullptr;
  const Level* level = nullptr;
  IVec2 cell{0, 0};
};

// Where a piece joins a side of `before`, whose top left is at `cell`: two openings of one name meet there, and the piece lies within a
// level that has `across` cells across that direction. Nothing when there is no such cell.
std::optional<IVec2> joins_at(LevelSide side, const Level& before, IVec2 cell, int across,
                              const Level& piece);

// Those of a list that do.
std::vector<NextPiece> joining_pieces(const PieceList& list, LevelSide side, const Level& before, IVec2 cell,
                                      int across, const FindPiece& find);

// One of them by weight, not `last` where there is another; nullptr when there are none. `chance`: any number.
const NextPiece* choose_piece(const std::vector<NextPiece>& pieces, std::string_view last,
                              std::uint64_t chance);
// One of a list, likewise.
const PieceList::Item& choose_piece(const PieceList& list, std::string_view last, std::uint64_t chance);

// Reports each piece that an endless level comes to and after which none of its list fits; and as warnings those that it never
// comes to.
void check_endless(const Level& level, const FindPiece& find, Report& report);

}  // namespace vole
