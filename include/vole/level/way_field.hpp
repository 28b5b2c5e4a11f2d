// Shortest ways over cells to one of them: for all who want to get there, found once and only as far as somebody asks.
//
//   WayField ways({{0, 0}, {40, 22}}, door, WaySteps::four, [&](IVec2 cell) { return !level.solid().solid(cell.x, cell.y); });
//   if (auto next = ways.next(here)) ...            // the cell to go to; none: there, or there is no way
//
// Method: breadth-first from the goal outwards; with diagonal steps (10 for a straight and 14 for a slanted one) in the order
// of R. Dial, "Algorithm 360: Shortest-path forest with topological ordering", 1969.
#pragma once

#include <array>
#include <cstdint>
#include <functional>
#include <optional>
#include <vector>

#include "vole/base/rect.hpp"

namespace vole {

// Straight ones alone; or slanted ones too, where both cells beside are open.
enum class WaySteps : std::uint8_t { four, eight };

class WayField {
 public:
  using IsOpen = std::function<bool(IVec2 cell)>;

  // Of the cells within an area, at most 16,777,216; throws Error for more. `is_open` is asked once for each cell that a way could lead
  // over; the goal itself may be closed.
  WayField(const IRect& area, IVec2 goal, WaySteps steps, IsOpen is_open);

  IVec2 goal() const { return goal_; }
  // How far it is to the goal: 10 for each straight step and 14 for a slanted one; none where there is no way.
  std::optional<int> length(IVec2 from);
  // The first cell of a shortest way; none at the goal, and where there is no way.
  std::optional<IVec2> next(IVec2 from);
  // All cells of a shortest way, from the first to the goal.
  std::vector<IVec2> way(IVec2 from);
  // How many cells were looked at so far.
  std::size_t looked_at() const { return looked_at_; }

 private:
  static constexpr int straight = 10, slanted = 14;
  static constexpr std::uint32_t unknown = 0xffffffffu;

  bool inside(IVec2 cell) const { return area_.contains(cell); }
  std::size_t index(IVec2 cell) const;
  bool open(IVec2 cell);
  void reach(IVec2 cell, std::uint32_t length);
  // Until a cell's length is settled, or nothing is left.
  void grow_to(std::size_t index);
  void leave(IVec2 cell, std::uint32_t length);

  IRect area_;
  IVec2 goal_;
  WaySteps steps_;
  IsOpen is_open_;
  std::vector<std::uint32_t> lengths_;                   // of each cell, row by row
  std::vector<std::uint8_t> known_open_;                 // 0 unknown, 1 open, 2 closed
  std::array<std::vector<IVec2>, slanted + 1> waiting_;  // cells by their length, modulo the number of lists
  std::uint32_t settled_ = 0;                            // all that is shorter is
  std::size_t waiting_count_ = 0, looked_at_ = 0;
};

}  // namespace vole
