#include "mind_ways.hpp"

#include <algorithm>
#include <cmath>

#include "vole/level/level.hpp"
#include "vole/world/level_now.hpp"

namespace vole {
namespace {

constexpr std::size_t most_fields = 16;

// Whether a box that stands in the middle of a cell meets no solid tile.
bool has_room(const LevelNow& level, const WayCells& cells, IVec2 cell) {
  const Rect box{cells.middle_of(cell) - cells.body * 0.5f, cells.body};
  const IVec2 from = level.cell_at(box.at);
  // What only touches the next tile is not in it.
  const Vec2 tile(level.tile_size());
  const IVec2 to{static_cast<int>(std::ceil(box.right() / tile.x)) - 1,
                 static_cast<int>(std::ceil(box.bottom() / tile.y)) - 1};
  for (int y = from.y; y <= to.y; ++y)
    for (int x = from.x; x <= to.x; ++x)
      if (level.solid().solid(x, y)) return false;
  return true;
}

}  // namespace

IVec2 WayCells::cell_at(Vec2 point) const {
  const Vec2 at = (point - origin) / Vec2(size);
  return {static_cast<int>(std::floor(at.x)), static_cast<int>(std::floor(at.y))};
}

void MindWays::forget_old(const LevelNow& level) {
  if (of_ == level.version() && changes_ == level.changes() && origin_ == level.origin()) return;
  known_.clear();
  of_ = level.version();
  changes_ = level.changes();
  origin_ = level.origin();
}

WayField& MindWays::field(const LevelNow& level, const WayCells& cells, IVec2 goal, int reach) {
  forget_old(level);
  for (Known& known : known_)
    if (known.goal == goal && known.reach == reach && known.cells == cells) return *known.field;
  if (known_.size() >= most_fields) known_.pop_front();
  const IRect area{goal - IVec2{reach, reach}, IVec2{2 * reach + 1, 2 * reach + 1}};
  known_.push_back(
      {cells, goal, reach, std::make_unique<WayField>(area, goal, cells.steps, [&level, cells](IVec2 cell) {
         return has_room(level, cells, cell);
       })});
  return *known_.back().field;
}

std::optional<Vec2> MindWays::next(const LevelNow& level, const WayCells& cells, Vec2 from, Vec2 to,
                                   float within) {
  // A detour may lead further off than what it is about.
  constexpr int detour = 8, furthest = 512;
  const int size = std::min(cells.size.x, cells.size.y);
  const int reach = std::min(static_cast<int>(within / static_cast<float>(size)) + detour, furthest);
  WayField& ways = field(level, cells, cells.cell_at(to), reach);
  const std::optional<IVec2> next = ways.next(cells.cell_at(from));
  return next ? std::optional(cells.middle_of(*next)) : std::nullopt;
}

}  // namespace vole
