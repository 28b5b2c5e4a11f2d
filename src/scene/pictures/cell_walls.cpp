#include "cell_walls.hpp"

#include "vole/base/within.hpp"

namespace vole {
namespace {

std::uint8_t covered_sides(const CellForm& form) {
  std::uint8_t sides = 0;
  for (const CellSide side : {side_left, side_right, side_top, side_bottom})
    if (form.covered(side)) sides |= side;
  return sides;
}

// Calls add(first, end) for each row of numbers below `count` that are wanted, as one.
template <class Wanted, class Add>
void for_runs(int count, const Wanted& wanted, const Add& add) {
  for (int i = 0; i < count; ++i) {
    const int first = i;
    while (i < count && wanted(i)) ++i;
    if (first < i) add(first, i);
  }
}

constexpr std::uint8_t all_sides = side_left | side_right | side_top | side_bottom;

}  // namespace

void CellWalls::add(const SolidGrid& solid, Vec2 lamp, float reach, std::vector<Wall>& walls) {
  look(solid, lamp - Vec2(reach), lamp + Vec2(reach));
  const IVec2 origin = first_ * tile_;
  origin_ = {origin.x - static_cast<double>(lamp.x), origin.y - static_cast<double>(lamp.y)};
  add_flat_sides(walls);
  add_upright_sides(walls);
  for (int y = 1; any_parts_ && y + 1 < size_.y; ++y)
    for (int x = 1; x + 1 < size_.x; ++x) add_part(x, y, walls);
}

void CellWalls::look(const SolidGrid& solid, Vec2 from, Vec2 to) {
  solid_ = &solid;
  tile_ = solid.cell();
  first_ = floor_to_int(from / Vec2(tile_)) - IVec2(1);
  size_ = floor_to_int(to / Vec2(tile_)) - first_ + IVec2(2);
  covered_.clear();
  any_parts_ = false;
  for (int y = 0; y < size_.y; ++y)
    for (int x = 0; x < size_.x; ++x) {
      const CellForm* const form = solid.form(first_.x + x, first_.y + y);
      covered_.push_back(!form || !form->shadow ? std::uint8_t{0}
                         : form->is_full()      ? all_sides
                                                : covered_sides(*form));
      any_parts_ = any_parts_ || (form && !form->is_full());
    }
}

const CellForm* CellWalls::part(int x, int y) const {
  const CellForm* const form = solid_->form(first_.x + x, first_.y + y);
  return form && form->shadow && !form->is_full() ? form : nullptr;
}

// Upper sides of what is below the lamp, lower ones of what is above it.
void CellWalls::add_flat_sides(std::vector<Wall>& walls) const {
  for (int line = 1; line < size_.y; ++line) {
    const double y = origin_.y + line * tile_.y;
    const bool below = y > 0;
    const int of = below ? line : line - 1, beside = below ? line - 1 : line;
    const auto wanted = [&](int x) {
      return covered(x, of) == all_sides && (covered(x, beside) & (below ? side_bottom : side_top)) == 0;
    };
    for_runs(size_.x, wanted, [&](int first, int end) {
      const LightCorner left{origin_.x + first * tile_.x, y}, right{origin_.x + end * tile_.x, y};
      walls.push_back(below ? Wall{left, right} : Wall{right, left});
    });
  }
}

// Left sides of what is to the right of the lamp, right ones of what is to its left.
void CellWalls::add_upright_sides(std::vector<Wall>& walls) const {
  for (int line = 1; line < size_.x; ++line) {
    const double x = origin_.x + line * tile_.x;
    const bool right = x > 0;
    const int of = right ? line : line - 1, beside = right ? line - 1 : line;
    const auto wanted = [&](int y) {
      return covered(of, y) == all_sides && (covered(beside, y) & (right ? side_right : side_left)) == 0;
    };
    for_runs(size_.y, wanted, [&](int first, int end) {
      const LightCorner top{x, origin_.y + first * tile_.y}, bottom{x, origin_.y + end * tile_.y};
      walls.push_back(right ? Wall{bottom, top} : Wall{top, bottom});
    });
  }
}

// The sides of a form that is not all of its cell, but for those that the forms beside it hide.
void CellWalls::add_part(int x, int y, std::vector<Wall>& walls) {
  const CellForm* const form = part(x, y);
  if (!form) return;
  const auto hidden = [&](CellSide side) {
    const CellForm* const beside = solid_->form(first_.x + x + (side == side_right) - (side == side_left),
                                                first_.y + y + (side == side_bottom) - (side == side_top));
    return beside && beside->shadow && form->hidden(side, *beside);
  };
  outline_.clear();
  add_outline(form->shape().corners(), {0, 0}, outline_);
  for (const Wall& wall : outline_) {
    const bool upright = wall.from.x == wall.to.x, flat = wall.from.y == wall.to.y;
    if ((upright && wall.from.x == 0 && hidden(side_left)) ||
        (upright && wall.from.x == tile_.x && hidden(side_right)) ||
        (flat && wall.from.y == 0 && hidden(side_top)) ||
        (flat && wall.from.y == tile_.y && hidden(side_bottom)))
      continue;
    const LightCorner at_cell =
        origin_ + LightCorner{static_cast<double>(x * tile_.x), static_cast<double>(y * tile_.y)};
    walls.push_back({wall.from + at_cell, wall.to + at_cell});
  }
}

}  // namespace vole
