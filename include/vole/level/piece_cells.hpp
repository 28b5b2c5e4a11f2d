// The cells of a piece, as the level sees them that it is put into: its tiles under that level's numbers, its layers found there
// by name.
#pragma once

#include <memory>

#include "vole/level/level.hpp"

namespace vole {

class PieceCells {
 public:
  // Throws Error, at `asked`, for tiles that the level does not have, and for layers with tiles that it lacks or that do
  // not go along with it.
  PieceCells(std::shared_ptr<const Level> piece, const Level& into, const FilePosition& asked = {});

  const Level& level() const { return *piece_; }
  const std::shared_ptr<const Level>& version() const { return piece_; }
  // What it has in a cell of a layer of the level that it is put into.
  Paint paint(std::size_t layer, IVec2 cell) const;

 private:
  std::shared_ptr<const Level> piece_;
  std::vector<int> layers_;             // by those of the level: an index of its own; -1: none
  std::vector<int> tiles_, materials_;  // by its own
};

}  // namespace vole
