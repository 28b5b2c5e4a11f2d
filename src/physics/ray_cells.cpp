#include "ray_cells.hpp"

namespace vole {

bool RayCells::pass_empty(const SolidGrid& grid) {
  while (const SolidGrid::Block* const block = grid.block_at(x_.cell, y_.cell)) {
    const Passed passed = pass_empty(*block);
    if (passed != Passed::out_of_block) return passed == Passed::to_something;
  }
  return true;
}

// Most of a ray's time goes by here: so all is in local numbers, and the cell is counted on as a place in the block.
RayCells::Passed RayCells::pass_empty(const SolidGrid::Block& block) {
  const std::int64_t out_x = x_.steps_out(), out_y = y_.steps_out();
  const std::int64_t step_x = x_.step, step_y = y_.step * SolidGrid::block_side;
  const double each_x = x_.each, each_y = y_.each;
  double next_x = x_.next, next_y = y_.next;
  std::int64_t place = y_.in_block() * SolidGrid::block_side + x_.in_block();
  std::int64_t left_x = out_x, left_y = out_y;
  Passed passed = Passed::to_something;
  bool along_x = along_x_;
  while (block[static_cast<std::size_t>(place)] == 0) {
    along_x = next_x <= next_y;
    if ((along_x ? next_x : next_y) > 1) {
      passed = Passed::all;
      break;
    }
    if (along_x) {
      next_x += each_x;
      place += step_x;
      if (--left_x == 0) passed = Passed::out_of_block;
    } else {
      next_y += each_y;
      place += step_y;
      if (--left_y == 0) passed = Passed::out_of_block;
    }
    if (passed == Passed::out_of_block) break;
  }
  moved_ = moved_ || left_x != out_x || left_y != out_y;
  along_x_ = along_x;
  x_.cell += x_.step * (out_x - left_x);
  y_.cell += y_.step * (out_y - left_y);
  x_.next = next_x;
  y_.next = next_y;
  return passed;
}

}  // namespace vole
