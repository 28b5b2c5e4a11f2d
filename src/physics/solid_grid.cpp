#include "vole/physics/solid_grid.hpp"

#include <algorithm>

#include "vole/base/division.hpp"
#include "vole/physics/subpixel.hpp"

namespace vole {

SolidGrid::SolidGrid(IVec2 cells, int cell, Beyond beyond)
    : cells_(std::max(cells.x, 0), std::max(cells.y, 0)),
      cell_(std::max(cell, 1)),
      beyond_(beyond),
      solid_(static_cast<std::size_t>(cells_.x) * static_cast<std::size_t>(cells_.y), 0) {}

void SolidGrid::set(IVec2 at, bool solid) {
  if (!IRect{{0, 0}, cells_}.contains(at)) return;
  solid_[static_cast<std::size_t>(at.y) * static_cast<std::size_t>(cells_.x) +
         static_cast<std::size_t>(at.x)] = solid;
}

bool SolidGrid::solid(std::int64_t x, std::int64_t y) const {
  if (x < 0) return beyond_.left;
  if (x >= cells_.x) return beyond_.right;
  if (y < 0) return beyond_.top;
  if (y >= cells_.y) return beyond_.bottom;
  return solid_[static_cast<std::size_t>(y) * static_cast<std::size_t>(cells_.x) +
                static_cast<std::size_t>(x)] != 0;
}

bool SolidGrid::blocks(const Rect& box) const {
  const std::int64_t unit = std::int64_t{cell_} * subpixels;
  // Beyond one cell outside, all cells are alike: no need to look at more of them.
  const auto first = [unit](float start, int count) {
    return std::clamp<std::int64_t>(floor_divide(to_subpixels(start), unit), -1, count);
  };
  const auto last = [unit](float start, float end, int count) {
    const std::int64_t cell_of_end = ceil_divide(to_subpixels(end), unit) - 1;
    return std::clamp<std::int64_t>(std::max(cell_of_end, floor_divide(to_subpixels(start), unit)), -1,
                                    count);
  };
  for (std::int64_t y = first(box.top(), cells_.y); y <= last(box.top(), box.bottom(), cells_.y); ++y)
    for (std::int64_t x = first(box.left(), cells_.x); x <= last(box.left(), box.right(), cells_.x); ++x)
      if (solid(x, y)) return true;
  return false;
}

}  // namespace vole
