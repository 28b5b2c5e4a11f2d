// Boxes on the lattice, and the cells of a grid that they reach into.
#pragma once

#include <algorithm>

#include "vole/base/division.hpp"
#include "vole/physics/solid_grid.hpp"
#include "vole/physics/subpixel.hpp"

namespace vole {

// Far outside nothing changes any more: what is further is cut, to keep products within what numbers hold.
inline std::int64_t bounded_subpixels(float pixels) {
  constexpr std::int64_t furthest = std::int64_t{1} << 30;
  return std::clamp(to_subpixels(pixels), -furthest, furthest);
}
inline LatticePoint to_lattice(Vec2 point) {
  return {bounded_subpixels(point.x), bounded_subpixels(point.y)};
}
// At least one subpixel wide and high.
inline LatticeBox to_lattice(const Rect& box) {
  const LatticePoint at = to_lattice(box.at), size = to_lattice(box.size);
  return {at.x, at.y, at.x + std::max<std::int64_t>(size.x, 1), at.y + std::max<std::int64_t>(size.y, 1)};
}
inline Vec2 to_vec(LatticePoint point) {
  return {to_pixels(point.x), to_pixels(point.y)};
}

// The size of a cell on the lattice.
inline LatticePoint cell_units(const SolidGrid& grid) {
  return {std::int64_t{grid.cell().x} * subpixels, std::int64_t{grid.cell().y} * subpixels};
}
inline LatticePoint cell_corner(const SolidGrid& grid, std::int64_t x, std::int64_t y) {
  const LatticePoint unit = cell_units(grid);
  return {x * unit.x, y * unit.y};
}

// From a first to a last cell along an axis. Beyond an edge all cells are alike: of those that are further out, one is enough.
struct CellRange {
  std::int64_t first = 0;
  std::int64_t last = -1;

  // The cells that a span of subpixels reaches into, on an axis with `count` of them.
  CellRange(std::int64_t start, std::int64_t end, std::int64_t unit, std::int64_t count)
      : first(floor_divide(start, unit)), last(ceil_divide(end, unit) - 1) {
    if (first < -1) first = std::min<std::int64_t>(last, -1);
    if (last > count) last = std::max<std::int64_t>(first, count);
  }
};

// Calls visit(x, y) for each cell that a box reaches into, row by row.
template <class Visit>
void visit_cells(const SolidGrid& grid, const LatticeBox& box, const Visit& visit) {
  const LatticePoint unit = cell_units(grid);
  const CellRange across(box.left, box.right, unit.x, grid.cells().x);
  const CellRange down(box.top, box.bottom, unit.y, grid.cells().y);
  for (std::int64_t y = down.first; y <= down.last; ++y)
    for (std::int64_t x = across.first; x <= across.last; ++x) visit(x, y);
}

}  // namespace vole
