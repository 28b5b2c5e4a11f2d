#include "vole/physics/solid_grid.hpp"

#include <algorithm>

#include "cells.hpp"
#include "vole/base/error.hpp"

namespace vole {

SolidGrid::SolidGrid(IVec2 cells, int cell, Beyond beyond)
    : cells_(std::max(cells.x, 0), std::max(cells.y, 0)),
      cell_(std::max(cell, 1)),
      beyond_(beyond),
      blocks_across_((cells_.x + block_side - 1) / block_side),
      table_(static_cast<std::size_t>(blocks_across_ * ((cells_.y + block_side - 1) / block_side)), 0),
      forms_{CellForm::full(cell_)} {}

void SolidGrid::set(IVec2 at, bool solid) {
  set_number(at, solid ? 1 : 0);
}

void SolidGrid::set(IVec2 at, const CellForm& form) {
  set_number(at, number_of(form));
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

void SolidGrid::set_number(IVec2 at, std::uint8_t number) {
  if (!IRect{{0, 0}, cells_}.contains(at)) return;
  std::uint32_t& block = table_[table_place(at.x, at.y)];
  if (block == 0) {
    if (number == 0) return;
    blocks_.push_back({});
    block = static_cast<std::uint32_t>(blocks_.size());
  }
  blocks_[block - 1u][place_in_block(at.x, at.y)] = number;
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
  const auto size = static_cast<float>(cell_);
  const auto beside = [&](CellSide side) { return hidden(at.x, at.y, side); };
  if (from.x == to.x) return (from.x == 0 && beside(side_left)) || (from.x == size && beside(side_right));
  if (from.y == to.y) return (from.y == 0 && beside(side_top)) || (from.y == size && beside(side_bottom));
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
  if (x < 0 || y < 0 || last_x >= cells_.x || last_y >= cells_.y) return nullptr;
  const std::uint32_t place = table_[table_place(x, y)];
  return place == 0 ? &empty : &blocks_[place - 1u];
}

}  // namespace vole
