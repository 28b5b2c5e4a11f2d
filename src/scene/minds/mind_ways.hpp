// Ways around walls for minds: found once for all who chase the same thing, and kept while the level stays as it is.
#pragma once

#include <deque>
#include <memory>
#include <optional>

#include "vole/level/way_field.hpp"
#include "vole/scene/movers/mover_turn.hpp"

namespace vole {

class Level;

// The cells over which something goes, and how much room it needs.
struct WayCells {
  IVec2 size{16, 16};  // of a cell
  Vec2 origin{0, 0};
  Vec2 body{0, 0};
  WaySteps steps = WaySteps::eight;

  IVec2 cell_at(Vec2 point) const;
  Vec2 middle_of(IVec2 cell) const { return origin + (Vec2(cell) + Vec2{0.5f, 0.5f}) * Vec2(size); }
  friend bool operator==(const WayCells&, const WayCells&) = default;
};

class MindWays {
 public:
  // The middle of the cell to go to from a point, on a shortest way to another; none where there is none over the cells at most so many
  // pixels from there.
  std::optional<Vec2> next(const LevelNow& level, const WayCells& cells, Vec2 from, Vec2 to, float within);

 private:
  struct Known {
    WayCells cells;
    IVec2 goal{0, 0};
    int reach = 0;
    std::unique_ptr<WayField> field;
  };
  void forget_old(const LevelNow& level);
  WayField& field(const LevelNow& level, const WayCells& cells, IVec2 goal, int reach);

  std::shared_ptr<const Level> of_;
  std::uint64_t changes_ = 0;
  IVec2 origin_{0, 0};
  std::deque<Known> known_;  // the oldest first
};

}  // namespace vole
