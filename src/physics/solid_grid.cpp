#include "vole/physics/solid_grid.hpp"

#include <algorithm>

#include "cells.hpp"
#include "vole/base/error.hpp"

namespace vole {

SolidGrid::SolidGrid(IVec2 cells, IVec2 cell, Beyond beyond)
    : cell_(std::max(cell.x, 1), std::max(cell.y, 1)),
      beyond_(beyond),
      numbers_(cells),
      forms_{CellForm::full(cell_)} {}

void SolidGrid::grow(IVec2 cells) {
  numbers_.grow(cells);
}

void SolidGrid::move_blocks(IVec2 by) {
  numbers_.move_blocks(by);
}

std::size_t SolidGrid::memory() const {
  return numbers_.memory();
}

void SolidGrid::release_empty(const IRect& area) {
  numbers_.release_empty(area);
}

void SolidGrid::set(IVec2 at, bool solid) {
  numbers_.set(at, solid ? 1 : 0);
}

void SolidGrid::set(IVec2 at, const CellForm& form) {
  numbers_.set(at, number_of(form));
}

std::uint8_t SolidGrid::number_of(const CellForm& form) {
  constexpr std::size_t most_forms = 254;
  auto found = std::find(forms_.begin(), forms_.end(), form);
  if (found == forms_.end()) {
    if (forms_.size() == most_forms)
      throw Error(FilePosition{}, "more than 254 different shapes of tiles in a level");
    found = forms_.insert(found, form);
  }
  return static_cast<std::uint8_t>(found - forms_.begin() + 1);
}

bool SolidGrid::hidden(std::int64_t x, std::int64_t y, CellSide side) const {
  const CellForm* const mine = form(x, y);
  const CellForm* const beside =
      form(x + (side == side_right) - (side == side_left), y + (side == side_bottom) - (side == side_top));
  return mine && beside && mine->hidden(side, *beside);
}

bool SolidGrid::edge_hidden(IVec2 at, std::size_t edge) const {
  const std::span<const Vec2> corners = form(at.x, at.y)->shape().corners();
  const Vec2 from = corners[edge], to = corners[(edge + 1) % corners.size()];
  const Vec2 size(cell_);
  const auto beside = [&](CellSide side) { return hidden(at.x, at.y, side); };
  if (from.x == to.x) return (from.x == 0 && beside(side_left)) || (from.x == size.x && beside(side_right));
  if (from.y == to.y) return (from.y == 0 && beside(side_top)) || (from.y == size.y && beside(side_bottom));
  return false;
}

bool SolidGrid::blocks(const Rect& box, bool one_way_too) const {
  const LatticeBox wanted = to_lattice(box);
  bool blocked = false;
  visit_cells(*this, wanted, [&](std::int64_t x, std::int64_t y) {
    const CellForm* const here = form(x, y);
    if (here && (one_way_too || here->one_way == OneWay::no))
      blocked = blocked || here->lattice().overlaps(wanted, cell_corner(*this, x, y));
  });
  return blocked;
}

const SolidGrid::Block* SolidGrid::block_at(std::int64_t x, std::int64_t y) const {
  static constexpr Block empty{};
  const std::int64_t last_x = x | (block_side - 1), last_y = y | (block_side - 1);
  if (x < 0 || y < 0 || last_x >= cells().x || last_y >= cells().y) return nullptr;
  const Block* const found =
      numbers_.block(static_cast<int>(x >> Numbers::block_bits), static_cast<int>(y >> Numbers::block_bits));
  return found ? found : &empty;
}

}  // namespace vole
