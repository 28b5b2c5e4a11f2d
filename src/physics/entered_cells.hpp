// The cells of a grid that a box enters while it moves in a straight line, in the order in which it does.
//
// Method: the moments at which the leading edges cross grid lines are walked in order (as in J. Amanatides, A. Woo, "A Fast
// Voxel Traversal Algorithm for Ray Tracing", 1987, but for a box).
#pragma once

#include <cstdlib>

#include "cells.hpp"
#include "moment.hpp"

namespace vole {

// One side of the box (its left and right, or its top and bottom) while it moves.
class MovingSpan {
 public:
  MovingSpan(std::int64_t start, std::int64_t end, std::int64_t motion, std::int64_t unit)
      : start_(start), end_(end), motion_(motion), unit_(unit), step_(motion > 0 ? 1 : -1) {
    leading_ = motion > 0 ? ceil_divide(end, unit) - 1 : floor_divide(start, unit);
  }

  bool crosses() const { return motion_ != 0 && next_crossing().within_motion(); }
  // When the leading edge comes to the next line.
  Moment next_crossing() const {
    const std::int64_t line = (leading_ + (step_ > 0 ? 1 : 0)) * unit_;
    return {std::abs(line - (step_ > 0 ? end_ : start_)), std::abs(motion_)};
  }
  std::int64_t enter_next_cell() { return leading_ += step_; }

  // The cells that the span reaches into at a moment. The leading cell is counted as entered.
  std::int64_t first_cell(const Moment& when) const {
    if (step_ < 0 && motion_ != 0) return leading_;
    return floor_divide(start_ * when.bottom + motion_ * when.top, unit_ * when.bottom);
  }
  std::int64_t last_cell(const Moment& when) const {
    if (step_ > 0) return leading_;
    return ceil_divide(end_ * when.bottom + motion_ * when.top, unit_ * when.bottom) - 1;
  }

 private:
  std::int64_t start_;
  std::int64_t end_;
  std::int64_t motion_;
  std::int64_t unit_;
  std::int64_t step_;
  std::int64_t leading_;  // the furthest cell reached into so far, in the direction of the motion
};

// Calls visit(x, y) for each cell that the box is in at first, and then for each that it enters, until goes_on(moment) says
// that nothing later matters.
template <class Visit, class GoesOn>
void visit_entered_cells(const SolidGrid& grid, const LatticeBox& box, LatticePoint motion,
                         const Visit& visit, const GoesOn& goes_on) {
  const LatticePoint unit = cell_units(grid);
  visit_cells(grid, box, visit);
  MovingSpan x(box.left, box.right, motion.x, unit.x), y(box.top, box.bottom, motion.y, unit.y);
  while (true) {
    const bool x_next = x.crosses(), y_next = y.crosses();
    if (!x_next && !y_next) return;
    // At the very same moment left and right go first: the corner cell is then entered from above or below.
    const bool along_x = x_next && (!y_next || x.next_crossing() <= y.next_crossing());
    MovingSpan& mover = along_x ? x : y;
    const MovingSpan& other = along_x ? y : x;
    const Moment when = mover.next_crossing();
    if (!goes_on(when)) return;
    const std::int64_t entered = mover.enter_next_cell();
    const std::int64_t count = along_x ? grid.cells().y : grid.cells().x;
    std::int64_t first = other.first_cell(when), last = other.last_cell(when);
    // As in CellRange.
    if (first < -1) first = std::min<std::int64_t>(last, -1);
    if (last > count) last = std::max<std::int64_t>(first, count);
    for (std::int64_t across = first; across <= last; ++across)
      along_x ? visit(entered, across) : visit(across, entered);
  }
}

}  // namespace vole
