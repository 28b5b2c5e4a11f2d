#include "vole/level/way_field.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/base/error.hpp"

namespace vole {
namespace {

constexpr std::array<IVec2, 8> ways{IVec2{1, 0}, {0, 1},  {-1, 0},  {0, -1},
                                    {1, 1},      {-1, 1}, {-1, -1}, {1, -1}};

}  // namespace

WayField::WayField(const IRect& area, IVec2 goal, WaySteps steps, IsOpen is_open)
    : area_(area), goal_(goal), steps_(steps), is_open_(std::move(is_open)) {
  constexpr std::int64_t most_field_cells = 16'777'216;
  const std::int64_t cells = std::int64_t{std::max(area.size.x, 0)} * std::max(area.size.y, 0);
  if (cells > most_field_cells)
    throw Error(FilePosition{}, fmt::format("ways are found over at most {} cells, and not over {} x {}",
                                            most_field_cells, area.size.x, area.size.y));
  lengths_.assign(static_cast<std::size_t>(cells), unknown);
  known_open_.assign(static_cast<std::size_t>(cells), 0);
  if (inside(goal_)) reach(goal_, 0);
}

std::size_t WayField::index(IVec2 cell) const {
  return static_cast<std::size_t>(cell.y - area_.at.y) * static_cast<std::size_t>(area_.size.x) +
         static_cast<std::size_t>(cell.x - area_.at.x);
}

bool WayField::open(IVec2 cell) {
  if (!inside(cell)) return false;
  std::uint8_t& known = known_open_[index(cell)];
  if (known == 0) {
    ++looked_at_;
    known = is_open_(cell) ? 1 : 2;
  }
  return known == 1;
}

void WayField::reach(IVec2 cell, std::uint32_t length) {
  std::uint32_t& known = lengths_[index(cell)];
  if (length >= known) return;
  known = length;
  waiting_[length % waiting_.size()].push_back(cell);
  ++waiting_count_;
}

void WayField::leave(IVec2 cell, std::uint32_t length) {
  const std::size_t count = steps_ == WaySteps::four ? 4 : 8;
  for (std::size_t i = 0; i < count; ++i) {
    const IVec2 way = ways[i], to = cell + way;
    if (!open(to)) continue;
    if (i < 4)
      reach(to, length + straight);
    else if (open(cell + IVec2{way.x, 0}) && open(cell + IVec2{0, way.y}))
      reach(to, length + slanted);
  }
}

void WayField::grow_to(std::size_t wanted) {
  while (waiting_count_ > 0 && lengths_[wanted] > settled_) {
    std::vector<IVec2>& now = waiting_[settled_ % waiting_.size()];
    // What is reached meanwhile is longer, so it goes to other lists.
    for (const IVec2 cell : now)
      if (lengths_[index(cell)] == settled_) leave(cell, settled_);
    waiting_count_ -= now.size();
    now.clear();
    ++settled_;
  }
}

std::optional<int> WayField::length(IVec2 from) {
  if (!inside(from)) return std::nullopt;
  const std::size_t at = index(from);
  grow_to(at);
  return lengths_[at] == unknown ? std::nullopt : std::optional(static_cast<int>(lengths_[at]));
}

std::optional<IVec2> WayField::next(IVec2 from) {
  const std::optional<int> length = this->length(from);
  if (!length || *length == 0) return std::nullopt;
  const std::size_t count = steps_ == WaySteps::four ? 4 : 8;
  for (std::size_t i = 0; i < count; ++i) {
    const IVec2 way = ways[i], to = from + way;
    if (!inside(to)) continue;
    const auto step = static_cast<std::uint32_t>(i < 4 ? straight : slanted);
    const std::uint32_t its = lengths_[index(to)];
    if (its == unknown || its + step != static_cast<std::uint32_t>(*length)) continue;
    if (i < 4 || (open(from + IVec2{way.x, 0}) && open(from + IVec2{0, way.y}))) return to;
  }
  return std::nullopt;
}

std::vector<IVec2> WayField::way(IVec2 from) {
  std::vector<IVec2> cells;
  while (const std::optional<IVec2> to = next(from)) cells.push_back(from = *to);
  return cells;
}

}  // namespace vole
