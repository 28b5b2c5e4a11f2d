// Pieces that were put into a level (level/pieces.hpp), as state.
#pragma once

#include <cstdint>
#include <memory>
#include <string>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/base/rect.hpp"
#include "vole/level/level_place.hpp"

namespace vole {

class Level;
class PieceCells;

// A piece that was put into the level.
struct PutPiece {
  std::uint32_t number = 0;  // from 1 on, in the order in which they were put
  std::string level;
  IVec2 cell{0, 0};  // of the level, that its top left lies in
  std::uint64_t seed = 0;
  std::int32_t lines = 0;    // columns, or rows where the level goes up or down, whose cells are there
  std::uint32_t things = 0;  // that have come to life
  bool is_last = false;      // of those that an endless level has gone on by
  bool leaves = false;

  // Found by the name.
  std::shared_ptr<const PieceCells> cells;
  std::vector<LevelPlace> places;  // what is scattered comes last

  const Level& file() const;
  IRect area() const;
};
template <class V>
void describe(V& v, PutPiece& piece) {
  v.state("number", piece.number);
  v.state("level", piece.level);
  v.state("cell", piece.cell);
  v.state("seed", piece.seed);
  v.state("lines", piece.lines);
  v.state("things", piece.things);
  v.state("is_last", piece.is_last);
  v.state("leaves", piece.leaves);
}
inline constexpr std::size_t most_pieces = 1000;  // at the same time

// What was chosen from a list of pieces.
struct ChosenPieces {
  std::string list;
  std::uint64_t times = 0;
  std::string last;
};
template <class V>
void describe(V& v, ChosenPieces& chosen) {
  v.state("list", chosen.list);
  v.state("times", chosen.times);
  v.state("last", chosen.last);
}

}  // namespace vole
