#include "vole/physics/solid_grid.hpp"

#include <algorithm>

#include "vole/physics/subpixel.hpp"
#include "whole_division.hpp"

namespace vole {

SolidGrid::SolidGrid(IVec2 cells, int cell, Beyond beyond)
    : cells_(std::max(cells.x, 0), std::max(cells.y, 0)),
      cell_(std::max(cell, 1)),
      beyond_(beyond),
      solid_(static_cast<std::size_t>(cells_.x) * static_cast<std::size_t>(cells_.y), 0) {}

void SolidGrid::set(IVec2 at, bool solid) {
  if (!IRect{{0, 0}, cells_}.contains(at)) return;
  solid_[static_cast<std::size_t>(at.y) * static_cast<std::size_t>(cells_.x) + static_cast<std::size_t>(at.x)] = solid;
}

bool SolidGrid::solid(std::int64_t x, std::int64_t y) const {
  if (x < 0) return beyond_.left;
  if (x >= cells_.x) return beyond_.right;
  if (y < 0) return beyond_.top;
  if (y >= cells_.y) return beyond_.bottom;
  return solid_[static_cast<std::size_t>(y) * static_cast<std::size_t>(cells_.x) + static_cast<std::size_t>(x)] != 0;
}

bool SolidGrid::blocks(const Rect& box) const {
  const std::int64_t unit = std::int64_t{cell_} * subpixels;
  const std::int64_t left = floor_divide(to_subpixels(box.left()), unit);
  const std::int64_t top = floor_divide(to_subpixels(box.top()), unit);
  // Beyond one cell outside, all cells are alike: no need to look at more of them.
  const std::int64_t right = std::min<std::int64_t>(ceil_divide(to_subpixels(box.right()), unit), cells_.x + 1);
  const std::int64_t bottom = std::min<std::int64_t>(ceil_divide(to_subpixels(box.bottom()), unit), cells_.y + 1);
  for (std::int64_t y = std::max<std::int64_t>(top, -1); y < std::max(bottom, top + 1); ++y)
    for (std::int64_t x = std::max<std::int64_t>(left, -1); x < std::max(right, left + 1); ++x)
      if (solid(x, y)) return true;
  return false;
}

}  // namespace vole
