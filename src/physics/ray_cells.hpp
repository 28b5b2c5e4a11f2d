// The cells of a grid that a ray passes, in order: J. Amanatides and A. Woo, 1987.
#pragma once

#include <cmath>
#include <cstdint>
#include <limits>

#include "vole/physics/solid_grid.hpp"

namespace vole {

class RayCells {
 public:
  RayCells(Vec2 from, Vec2 motion, IVec2 cell)
      : x_(static_cast<double>(from.x), static_cast<double>(motion.x), cell.x),
        y_(static_cast<double>(from.y), static_cast<double>(motion.y), cell.y) {}

  std::int64_t x() const { return x_.cell; }
  std::int64_t y() const { return y_.cell; }
  // When the cell was entered, and from which side; at first 0. Worked out anew, so that nothing has added up.
  double when() const { return !moved_ ? 0 : along_x_ ? x_.entered() : y_.entered(); }
  Vec2 normal() const {
    if (!moved_) return {0, -1};
    return along_x_ ? Vec2(static_cast<float>(-x_.step), 0) : Vec2(0, static_cast<float>(-y_.step));
  }
  // False when the ray ends in this cell.
  bool next() {
    moved_ = true;
    along_x_ = x_.next <= y_.next;
    return (along_x_ ? x_ : y_).go_on();
  }
  // Goes on to the first cell that has something in it, from this one on, or is at the edge of the grid or beyond. False
  // when the ray ends before.
  bool pass_empty(const SolidGrid& grid);

 private:
  enum class Passed { to_something, out_of_block, all };
  Passed pass_empty(const SolidGrid::Block& block);

  struct Axis {
    std::int64_t cell;
    std::int64_t step;
    double from, motion, size;
    double each;  // from line to line
    double next;  // when a line is crossed next

    Axis(double start, double by, int cell_size)
        : cell(static_cast<std::int64_t>(std::floor(start / cell_size))),
          step(by > 0 ? 1 : -1),
          from(start),
          motion(by),
          size(cell_size),
          each(by == 0 ? 0 : std::abs(size / by)),
          next(by == 0 ? std::numeric_limits<double>::infinity() : crossing(by > 0 ? cell + 1 : cell)) {}
    double crossing(std::int64_t line) const { return (static_cast<double>(line) * size - from) / motion; }
    double entered() const { return crossing(step > 0 ? cell : cell + 1); }
    bool go_on() {
      const bool within = next <= 1;
      next += each;
      cell += step;
      return within;
    }
    std::int64_t in_block() const { return cell & (SolidGrid::block_side - 1); }
    // How many steps lead out of its block.
    std::int64_t steps_out() const { return step > 0 ? SolidGrid::block_side - in_block() : in_block() + 1; }
  };

  Axis x_, y_;
  bool along_x_ = false, moved_ = false;
};

}  // namespace vole
