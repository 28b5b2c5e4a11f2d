// Ways around walls for minds: found once for all who chase the same thing, and kept while the level stays as it is.
#pragma once

#include <memory>
#include <optional>

#include "scene/level_watch.hpp"
#include "scene/recently_used.hpp"
#include "vole/level/way_field.hpp"
#include "vole/scene/movers/mover_turn.hpp"

namespace vole {

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
  MindWays() = default;
  // What is known asks this one for the level.
  MindWays(const MindWays&) = delete;
  MindWays& operator=(const MindWays&) = delete;
  // The middle of the cell to go to from a point, on a shortest way to another; none where there is none over the cells at most so many
  // pixels from there.
  std::optional<Vec2> next(const LevelNow& level, const WayCells& cells, Vec2 from, Vec2 to, float within);

 private:
  struct Wanted {
    WayCells cells;
    IVec2 goal{0, 0};
    int reach = 0;

    friend bool operator==(const Wanted&, const Wanted&) = default;
  };
  WayField& field(const Wanted& wanted);

  LevelWatch watch_;
  // The one that was asked for last: what is known may have been found for one that was restored since.
  const LevelNow* level_ = nullptr;
  RecentlyUsed<Wanted, std::unique_ptr<WayField>> known_{16};
};

}  // namespace vole
