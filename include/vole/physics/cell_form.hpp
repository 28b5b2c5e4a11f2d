// What of a cell of tiles is solid.
//
//   grid.set({3, 7}, CellForm::full(16));
//   grid.set({4, 7}, CellForm(TileShape::rise, 16));                 // a slope up to the right
//   grid.set({5, 7}, CellForm(TileShape::rise, 16).mirrored());      // and down again
//   CellForm plank = CellForm(TileShape::upper_half, 16);
//   plank.one_way = OneWay::up;                                       // holds what comes from above, and nothing else
#pragma once

#include <array>
#include <cstdint>
#include <string_view>

#include "vole/physics/lattice_form.hpp"
#include "vole/physics/shape.hpp"

namespace vole {

// The side on which a thing is held; from all others it is let through.
enum class OneWay : std::uint8_t { no, up, down, left, right };
constexpr auto enum_names(OneWay) {
  return std::array<std::string_view, 5>{"no", "up", "down", "left", "right"};
}

// Whether something that comes in over an edge with this outward normal is held.
constexpr bool holds(OneWay side, std::int64_t normal_x, std::int64_t normal_y) {
  switch (side) {
    case OneWay::up:
      return normal_y < 0;
    case OneWay::down:
      return normal_y > 0;
    case OneWay::left:
      return normal_x < 0;
    case OneWay::right:
      return normal_x > 0;
    case OneWay::no:
      break;
  }
  return true;
}

// Shapes of tiles by name; `rise` and `fall` as one goes to the right. A gentle slope takes two tiles: its low and its high
// half.
enum class TileShape : std::uint8_t {
  full,
  lower_half,
  upper_half,
  left_half,
  right_half,
  rise,
  fall,
  gentle_rise_low,
  gentle_rise_high,
  gentle_fall_high,
  gentle_fall_low
};
constexpr auto enum_names(TileShape) {
  return std::array<std::string_view, 11>{
      "full", "lower half",       "upper half",        "left half",         "right half",      "rise",
      "fall", "gentle rise, low", "gentle rise, high", "gentle fall, high", "gentle fall, low"};
}

// The sides of a cell, as bits.
enum CellSide : std::uint8_t { side_left = 1, side_right = 2, side_top = 4, side_bottom = 8 };

class CellForm {
 public:
  // `cell` is the size of a cell in pixels, or of its sides where it is a square. Throws Error for a shape that reaches out
  // of the cell, and for one with a radius.
  CellForm(const Shape& shape, IVec2 cell);
  CellForm(const Shape& shape, int cell) : CellForm(shape, IVec2{cell, cell}) {}
  CellForm(TileShape shape, IVec2 cell);
  CellForm(TileShape shape, int cell) : CellForm(shape, IVec2{cell, cell}) {}
  static CellForm full(IVec2 cell) { return {TileShape::full, cell}; }
  static CellForm full(int cell) { return {TileShape::full, cell}; }

  // In pixels from the cell's corner.
  const Shape& shape() const { return shape_; }
  const LatticeForm& lattice() const { return lattice_; }
  bool is_full() const { return covered(side_left) && covered(side_right); }

  // The same as in a mirror, left for right; and turned clockwise by a quarter, so often, with its cell. One-way sides go
  // along.
  CellForm mirrored() const;
  CellForm turned(int quarters) const;

  // Whether the shape fills a whole side of the cell.
  bool covered(CellSide side) const { return (covered_ & side) != 0; }
  // Whether it lies on that side of the cell at all, from where to where, in pixels along it.
  bool reaches(CellSide side) const { return reach_[index_of(side)].size() > 0; }
  // Whether that side, as far as it reaches, touches only what the other form, in the cell beside, fills.
  bool hidden(CellSide side, const CellForm& beside) const;

  OneWay one_way = OneWay::no;
  std::uint8_t category = 0;  // number of its category
  bool shadow = true;         // lamps do not shine through it

  friend bool operator==(const CellForm& a, const CellForm& b);

 private:
  struct Reach {
    float from = 0;
    float to = 0;
    float size() const { return to - from; }
  };
  static constexpr std::size_t index_of(CellSide side) {
    return side == side_left ? 0u : side == side_right ? 1u : side == side_top ? 2u : 3u;
  }
  void find_reach();

  Shape shape_;
  LatticeForm lattice_;
  IVec2 cell_{16, 16};
  std::array<Reach, 4> reach_;
  std::uint8_t covered_ = 0;
};

}  // namespace vole
