// What is solid in a level, cell by cell: nothing, all of the cell, or a part of it (cell_form.hpp). What lies outside counts
// as solid or open, side by side as the level says.
//
//   SolidGrid grid({200, 12}, 16);
//   grid.set({3, 7}, true);
//   grid.set({4, 7}, CellForm(TileShape::rise, 16));
//
// Memory is kept for those blocks of 16 x 16 cells that have something in them, and copies share it (block_grid.hpp).
#pragma once

#include <cstdint>
#include <vector>

#include "vole/base/block_grid.hpp"
#include "vole/physics/cell_form.hpp"

namespace vole {

// What lies beyond each edge of a grid.
struct Beyond {
  bool left = true;
  bool right = true;
  bool top = false;
  bool bottom = false;
};

class SolidGrid {
 public:
  SolidGrid() = default;
  // `cell` is the size of a cell in pixels.
  SolidGrid(IVec2 cells, IVec2 cell, Beyond beyond = {});
  SolidGrid(IVec2 cells, int cell, Beyond beyond = {}) : SolidGrid(cells, IVec2{cell, cell}, beyond) {}

  IVec2 cells() const { return numbers_.cells(); }
  IVec2 cell() const { return cell_; }
  // The size in pixels.
  IVec2 size() const { return cells() * cell_; }

  // Outside nothing can be set. A form is of a cell of this size. Throws Error when there are more than 254 different
  // forms.
  void set(IVec2 at, bool solid);
  void set(IVec2 at, const CellForm& form);

  // See BlockGrid.
  void grow(IVec2 cells);
  void move_blocks(IVec2 by);

  // What is solid of any cell, also outside; nullptr: nothing.
  const CellForm* form(std::int64_t x, std::int64_t y) const {
    const std::uint8_t number = number_at(x, y);
    return number == 0 ? nullptr : &forms_[number - 1u];
  }
  // Whether something of it is.
  bool solid(std::int64_t x, std::int64_t y) const { return number_at(x, y) != 0; }
  // Whether a side of the cell's form is felt by nothing, since what is solid beside it hides it.
  bool hidden(std::int64_t x, std::int64_t y, CellSide side) const;
  // The same for an edge of the form there, by the corner of its shape that it begins at.
  bool edge_hidden(IVec2 at, std::size_t edge) const;

  // Whether a box of pixels reaches into something solid; also into what is one-way, unless that is left out.
  bool blocks(const Rect& box, bool one_way_too = true) const;

  // Bytes that the cells take.
  std::size_t memory() const;
  // Gives back the memory of blocks around an area of cells in which nothing is left.
  void release_empty(const IRect& area);

  // For what looks at many cells: the numbers of a block's forms, row by row, 0 where nothing is; of the block that has the
  // cell in it, if all of it is inside.
  using Numbers = BlockGrid<std::uint8_t>;
  using Block = Numbers::Block;
  static constexpr std::int64_t block_side = Numbers::block_side;
  const Block* block_at(std::int64_t x, std::int64_t y) const;

 private:
  // 0 for nothing, else a form's place and 1 more; the first form is of a full cell.
  std::uint8_t number_at(std::int64_t x, std::int64_t y) const {
    return numbers_.contains(x, y) ? numbers_.at(x, y) : number_beyond(x, y);
  }
  std::uint8_t number_beyond(std::int64_t x, std::int64_t y) const {
    if (x < 0) return beyond_.left;
    if (x >= cells().x) return beyond_.right;
    return y < 0 ? beyond_.top : beyond_.bottom;
  }
  std::uint8_t number_of(const CellForm& form);

  IVec2 cell_{16, 16};
  Beyond beyond_{false, false, false, false};
  Numbers numbers_;
  std::vector<CellForm> forms_;
};

}  // namespace vole
