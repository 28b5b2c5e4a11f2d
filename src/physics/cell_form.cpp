#include "vole/physics/cell_form.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <vector>

#include "vole/base/error.hpp"

namespace vole {
namespace {

// Corners in shares of the cell.
std::vector<Vec2> corners_of(TileShape shape) {
  switch (shape) {
    case TileShape::full:
      return {{0, 0}, {1, 0}, {1, 1}, {0, 1}};
    case TileShape::lower_half:
      return {{0, 0.5f}, {1, 0.5f}, {1, 1}, {0, 1}};
    case TileShape::upper_half:
      return {{0, 0}, {1, 0}, {1, 0.5f}, {0, 0.5f}};
    case TileShape::left_half:
      return {{0, 0}, {0.5f, 0}, {0.5f, 1}, {0, 1}};
    case TileShape::right_half:
      return {{0.5f, 0}, {1, 0}, {1, 1}, {0.5f, 1}};
    case TileShape::rise:
      return {{0, 1}, {1, 0}, {1, 1}};
    case TileShape::fall:
      return {{0, 0}, {1, 1}, {0, 1}};
    case TileShape::gentle_rise_low:
      return {{0, 1}, {1, 0.5f}, {1, 1}};
    case TileShape::gentle_rise_high:
      return {{0, 0.5f}, {1, 0}, {1, 1}, {0, 1}};
    case TileShape::gentle_fall_high:
      return {{0, 0}, {1, 0.5f}, {1, 1}, {0, 1}};
    case TileShape::gentle_fall_low:
      return {{0, 0.5f}, {1, 1}, {0, 1}};
  }
  return {};
}

Shape shape_of(TileShape shape, IVec2 cell) {
  std::vector<Vec2> corners = corners_of(shape);
  for (Vec2& corner : corners) corner *= Vec2(cell);
  return Shape::polygon(corners);
}

OneWay mirrored_side(OneWay side) {
  if (side == OneWay::left) return OneWay::right;
  return side == OneWay::right ? OneWay::left : side;
}

OneWay turned_side(OneWay side) {
  switch (side) {
    case OneWay::up:
      return OneWay::right;
    case OneWay::right:
      return OneWay::down;
    case OneWay::down:
      return OneWay::left;
    case OneWay::left:
      return OneWay::up;
    case OneWay::no:
      break;
  }
  return side;
}

CellSide opposite(CellSide side) {
  switch (side) {
    case side_left:
      return side_right;
    case side_right:
      return side_left;
    case side_top:
      return side_bottom;
    case side_bottom:
      break;
  }
  return side_top;
}

}  // namespace

CellForm::CellForm(const Shape& shape, IVec2 cell) : shape_(shape), lattice_(shape), cell_(cell) {
  const Rect bounds = shape.bounds();
  const Vec2 size(cell);
  if (shape.radius() > 0) throw Error(FilePosition{}, "the shape of a tile has corners, and no radius");
  if (bounds.left() < 0 || bounds.top() < 0 || bounds.right() > size.x || bounds.bottom() > size.y)
    throw Error(FilePosition{},
                fmt::format("the shape of a tile lies within its {} x {} pixels", cell.x, cell.y));
  find_reach();
}

CellForm::CellForm(TileShape shape, IVec2 cell) : CellForm(shape_of(shape, cell), cell) {}

void CellForm::find_reach() {
  const Vec2 size(cell_);
  const std::span<const Vec2> corners = shape_.corners();
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const Vec2 from = corners[i], to = corners[(i + 1) % corners.size()];
    const auto along = [&](CellSide side, float a, float b) {
      reach_[index_of(side)] = {std::min(a, b), std::max(a, b)};
      const bool upright = side == side_left || side == side_right;
      if (reach_[index_of(side)].size() == (upright ? size.y : size.x))
        covered_ = static_cast<std::uint8_t>(covered_ | side);
    };
    if (from.x == to.x && from.x == 0) along(side_left, from.y, to.y);
    if (from.x == to.x && from.x == size.x) along(side_right, from.y, to.y);
    if (from.y == to.y && from.y == 0) along(side_top, from.x, to.x);
    if (from.y == to.y && from.y == size.y) along(side_bottom, from.x, to.x);
  }
}

bool CellForm::hidden(CellSide side, const CellForm& beside) const {
  const Reach mine = reach_[index_of(side)], theirs = beside.reach_[index_of(opposite(side))];
  // What lets through hides nothing.
  if (beside.one_way != OneWay::no && (one_way != beside.one_way || category != beside.category))
    return false;
  return mine.size() > 0 && theirs.size() > 0 && theirs.from <= mine.from && theirs.to >= mine.to;
}

CellForm CellForm::mirrored() const {
  CellForm form(shape_.mirrored().moved_by({static_cast<float>(cell_.x), 0}), cell_);
  form.one_way = mirrored_side(one_way);
  form.category = category;
  form.shadow = shadow;
  return form;
}

CellForm CellForm::turned(int quarters) const {
  CellForm form = *this;
  for (int i = 0; i < (quarters % 4 + 4) % 4; ++i) {
    const IVec2 cell{form.cell_.y, form.cell_.x};
    CellForm next(form.shape_.turned(90).moved_by({static_cast<float>(cell.x), 0}), cell);
    next.one_way = turned_side(form.one_way);
    next.category = category;
    next.shadow = shadow;
    form = next;
  }
  return form;
}

bool operator==(const CellForm& a, const CellForm& b) {
  return a.cell_ == b.cell_ && a.one_way == b.one_way && a.category == b.category && a.shadow == b.shadow &&
         a.shape_ == b.shape_;
}

}  // namespace vole
