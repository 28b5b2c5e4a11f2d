#include "mind_ways.hpp"

#include <algorithm>

#include "vole/base/within.hpp"
#include "vole/level/level.hpp"
#include "vole/world/level_now.hpp"

namespace vole {
namespace {

// Whether a box that stands in the middle of a cell meets no solid tile.
bool has_room(const LevelNow& level, const WayCells& cells, IVec2 cell) {
  const Rect box{cells.middle_of(cell) - cells.body * 0.5f, cells.body};
  const IVec2 from = level.cell_at(box.at);
  // What only touches the next tile is not in it.
  const Vec2 tile(level.tile_size());
  const IVec2 to{ceil_to_int(box.right() / tile.x) - 1, ceil_to_int(box.bottom() / tile.y) - 1};
  for (int y = from.y; y <= to.y; ++y)
    for (int x = from.x; x <= to.x; ++x)
      if (level.solid().solid(x, y)) return false;
  return true;
}

}  // namespace

IVec2 WayCells::cell_at(Vec2 point) const {
  return floor_to_int((point - origin) / Vec2(size));
}

WayField& MindWays::field(const Wanted& wanted) {
  return *known_.get(wanted, [&] {
    const int reach = wanted.reach;
    const IRect area{wanted.goal - IVec2{reach, reach}, IVec2{2 * reach + 1, 2 * reach + 1}};
    return std::make_unique<WayField>(
        area, wanted.goal, wanted.cells.steps,
        [this, cells = wanted.cells](IVec2 cell) { return has_room(*level_, cells, cell); });
  });
}

std::optional<Vec2> MindWays::next(const LevelNow& level, const WayCells& cells, Vec2 from, Vec2 to,
                                   float within) {
  // A detour may lead further off than what it is about.
  constexpr int detour = 8, furthest = 512;
  const int size = std::min(cells.size.x, cells.size.y);
  const int reach = std::min(floor_to_int(within / static_cast<float>(size)) + detour, furthest);
  if (watch_.changed(level)) known_.clear();
  level_ = &level;
  WayField& ways = field({cells, cells.cell_at(to), reach});
  const std::optional<IVec2> next = ways.next(cells.cell_at(from));
  return next ? std::optional(cells.middle_of(*next)) : std::nullopt;
}

}  // namespace vole
