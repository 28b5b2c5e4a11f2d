// A grid of small values that keeps memory only for those blocks of 16 x 16 cells that have something in them. A copy shares
// the blocks of the original, and has one of its own from the first change in it on.
//
//   BlockGrid<std::uint16_t> written({4096, 4096});
//   written.set({3, 7}, 12);
//   BlockGrid<std::uint16_t> now = written;      // no cell is copied
//   now.set({3, 7}, 0);                          // one block is
#pragma once

#include <algorithm>
#include <array>
#include <cstdint>
#include <memory>
#include <vector>

#include "vole/base/rect.hpp"

namespace vole {

template <class Value>
class BlockGrid {
 public:
  static constexpr int block_bits = 4;
  static constexpr int block_side = 1 << block_bits;
  // Row by row.
  using Block = std::array<Value, std::size_t{block_side} * block_side>;

  BlockGrid() = default;
  explicit BlockGrid(IVec2 cells)
      : cells_(std::max(cells.x, 0), std::max(cells.y, 0)),
        blocks_((cells_.x + block_side - 1) / block_side, (cells_.y + block_side - 1) / block_side) {}

  IVec2 cells() const { return cells_; }
  // How many blocks there are each way.
  IVec2 blocks() const { return blocks_; }
  bool contains(std::int64_t x, std::int64_t y) const {
    return static_cast<std::uint64_t>(x) < static_cast<std::uint64_t>(cells_.x) &&
           static_cast<std::uint64_t>(y) < static_cast<std::uint64_t>(cells_.y);
  }
  // Whether nothing was ever put into it.
  bool empty() const { return table_.empty(); }

  // Of a cell inside.
  Value at(std::int64_t x, std::int64_t y) const {
    const Block* const found = block(static_cast<int>(x >> block_bits), static_cast<int>(y >> block_bits));
    return found ? (*found)[place_in_block(x, y)] : Value{};
  }
  // Of any cell; outside there is nothing.
  Value find(IVec2 cell) const { return contains(cell.x, cell.y) ? at(cell.x, cell.y) : Value{}; }
  // Outside nothing can be set.
  void set(IVec2 cell, Value value) {
    if (!contains(cell.x, cell.y)) return;
    if (table_.empty()) {
      if (value == Value{}) return;
      table_.resize(static_cast<std::size_t>(blocks().x) * static_cast<std::size_t>(blocks().y));
    }
    std::shared_ptr<Block>& its = table_[table_place(cell.x >> block_bits, cell.y >> block_bits)];
    if (!its) {
      if (value == Value{}) return;
      its = std::make_shared<Block>();
    } else if (its.use_count() > 1) {
      its = std::make_shared<Block>(*its);
    }
    (*its)[place_in_block(cell.x, cell.y)] = value;
  }
  void fill(const IRect& area, Value value) {
    const IRect inside = area.shared_with({{0, 0}, cells_});
    for (int y = inside.top(); y < inside.bottom(); ++y)
      for (int x = inside.left(); x < inside.right(); ++x) set({x, y}, value);
  }

  // Makes room for more cells to the right and below, up to this size.
  void grow(IVec2 cells) {
    BlockGrid larger({std::max(cells.x, cells_.x), std::max(cells.y, cells_.y)});
    if (!table_.empty()) {
      larger.table_.resize(static_cast<std::size_t>(larger.blocks_.x) *
                           static_cast<std::size_t>(larger.blocks_.y));
      for (int row = 0; row < blocks_.y; ++row)
        for (int column = 0; column < blocks_.x; ++column)
          larger.table_[larger.table_place(column, row)] = std::move(table_[table_place(column, row)]);
    }
    *this = std::move(larger);
  }
  // Moves all cells by whole blocks; those that leave the grid are gone.
  void move_blocks(IVec2 by) {
    if (table_.empty() || by == IVec2{0, 0}) return;
    for (int i = 0; i < blocks_.y; ++i)
      for (int j = 0; j < blocks_.x; ++j) {
        // From the side that they move to, so that each is read before it is written to.
        const IVec2 to{by.x > 0 ? blocks_.x - 1 - j : j, by.y > 0 ? blocks_.y - 1 - i : i};
        const IVec2 from = to - by;
        const bool inside = from.x >= 0 && from.y >= 0 && from.x < blocks_.x && from.y < blocks_.y;
        table_[table_place(to.x, to.y)] =
            inside ? std::move(table_[table_place(from.x, from.y)]) : std::shared_ptr<Block>();
      }
    if (by.x > 0 && cells_.x % block_side != 0) clear_beyond(true, false);
    if (by.y > 0 && cells_.y % block_side != 0) clear_beyond(false, true);
  }

  // The block at a column and row of blocks, which are inside; nullptr: nothing is in it.
  const Block* block(int column, int row) const {
    return table_.empty() ? nullptr : table_[table_place(column, row)].get();
  }
  static std::size_t place_in_block(std::int64_t x, std::int64_t y) {
    return static_cast<std::size_t>((y & (block_side - 1)) << block_bits | (x & (block_side - 1)));
  }
  // Gives back the memory of those blocks around an area in which nothing is left.
  void release_empty(const IRect& area) {
    const IRect inside = area.shared_with({{0, 0}, cells_});
    if (table_.empty() || inside.empty()) return;
    for (int row = inside.top() >> block_bits; row <= (inside.bottom() - 1) >> block_bits; ++row)
      for (int column = inside.left() >> block_bits; column <= (inside.right() - 1) >> block_bits; ++column) {
        std::shared_ptr<Block>& its = table_[table_place(column, row)];
        if (its && std::all_of(its->begin(), its->end(), [](Value value) { return value == Value{}; }))
          its.reset();
      }
  }

  // Calls visit(cell, value) for each cell in which something is, block by block.
  template <class Visit>
  void visit(const Visit& visit) const {
    const IVec2 count = table_.empty() ? IVec2{0, 0} : blocks();
    for (int row = 0; row < count.y; ++row)
      for (int column = 0; column < count.x; ++column)
        if (const Block* const its = block(column, row))
          for (int i = 0; i < block_side * block_side; ++i)
            if (const Value value = (*its)[static_cast<std::size_t>(i)]; value != Value{})
              visit(IVec2{column * block_side + i % block_side, row * block_side + i / block_side}, value);
  }

  // Bytes that its table and blocks take, shared ones too.
  std::size_t memory() const {
    const auto there =
        std::count_if(table_.begin(), table_.end(), [](const auto& block) { return block != nullptr; });
    return table_.capacity() * sizeof(table_[0]) +
           static_cast<std::size_t>(there) * (sizeof(Block) + 2 * sizeof(void*));
  }

  // Whether all cells have the same values.
  friend bool operator==(const BlockGrid& a, const BlockGrid& b) {
    if (a.cells_ != b.cells_) return false;
    const IVec2 count = a.blocks();
    static constexpr Block nothing{};
    for (int row = 0; row < count.y; ++row)
      for (int column = 0; column < count.x; ++column) {
        const Block *const one = a.block(column, row), *const other = b.block(column, row);
        if (one != other && (one ? *one : nothing) != (other ? *other : nothing)) return false;
      }
    return true;
  }

 private:
  // Empties what the last blocks of the columns or rows have outside of the grid.
  void clear_beyond(bool right, bool below) {
    for (int row = below ? blocks_.y - 1 : 0; row < blocks_.y; ++row)
      for (int column = below || !right ? 0 : blocks_.x - 1; column < blocks_.x; ++column) {
        std::shared_ptr<Block>& its = table_[table_place(column, row)];
        if (!its) continue;
        const IVec2 inside = cells_ - IVec2{column, row} * block_side;
        auto cleared = std::make_shared<Block>(*its);
        for (int i = 0; i < block_side * block_side; ++i)
          if (i % block_side >= inside.x || i / block_side >= inside.y)
            (*cleared)[static_cast<std::size_t>(i)] = {};
        its = std::move(cleared);
      }
  }
  std::size_t table_place(int column, int row) const {
    return static_cast<std::size_t>(row) * static_cast<std::size_t>(blocks_.x) +
           static_cast<std::size_t>(column);
  }

  IVec2 cells_{0, 0}, blocks_{0, 0};
  std::vector<std::shared_ptr<Block>> table_;  // of all blocks; empty until something is set
};

}  // namespace vole
