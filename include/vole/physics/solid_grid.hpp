// Which cells of a level are solid. What lies outside counts as solid or open, side by side as the level
// says.
#pragma once

#include <cstdint>
#include <vector>

#include "vole/base/rect.hpp"

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
  // `cell` is the size of a cell in pixels, the same both ways.
  SolidGrid(IVec2 cells, int cell, Beyond beyond = {});

  IVec2 cells() const { return cells_; }
  int cell() const { return cell_; }
  // The size in pixels.
  IVec2 size() const { return {cells_.x * cell_, cells_.y * cell_}; }

  void set(IVec2 at, bool solid);
  // Any cell, also outside.
  bool solid(std::int64_t x, std::int64_t y) const;

  // Whether a box of pixels reaches into a solid cell.
  bool blocks(const Rect& box) const;

 private:
  IVec2 cells_{0, 0};
  int cell_ = 16;
  Beyond beyond_{false, false, false, false};
  std::vector<std::uint8_t> solid_;
};

}  // namespace vole
