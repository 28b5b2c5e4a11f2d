#include "vole/physics/bounds_grid.hpp"

#include <algorithm>
#include <cmath>

#include "boxes.hpp"

namespace vole {
namespace {

constexpr double smallest_cell = 32;
// Further out all cells are one.
constexpr double furthest_cell = 1 << 27;
constexpr int top_level = 19;  // its cells are 8 million pixels wide

double cell_size(int level) {
  return smallest_cell * static_cast<double>(std::uint64_t{1} << level);
}

std::int64_t cell_at(float where, int level) {
  return static_cast<std::int64_t>(
      std::clamp(std::floor(static_cast<double>(where) / cell_size(level)), -furthest_cell, furthest_cell));
}

std::uint64_t key_of(int level, std::int64_t x, std::int64_t y) {
  constexpr std::uint64_t mask = (std::uint64_t{1} << 29) - 1;
  return static_cast<std::uint64_t>(level) << 58 | (static_cast<std::uint64_t>(x) & mask) << 29 |
         (static_cast<std::uint64_t>(y) & mask);
}

// The finalizer of splitmix64 (S. Vigna), which spreads neighbours.
std::uint64_t mixed(std::uint64_t key) {
  key = (key ^ (key >> 30)) * 0xbf58476d1ce4e5b9u;
  key = (key ^ (key >> 27)) * 0x94d049bb133111ebu;
  return key ^ (key >> 31);
}

// Cells as large as the box, so that it reaches into the next one at most. By its edges, not by its size: they are rounded.
int level_of(const Rect& box) {
  const double side = static_cast<double>(std::max(box.size.x, box.size.y));
  const auto reaches_further = [&box](int level) {
    return cell_at(box.right(), level) - cell_at(box.left(), level) > 1 ||
           cell_at(box.bottom(), level) - cell_at(box.top(), level) > 1;
  };
  int level = 0;
  while (level < top_level && (cell_size(level) < side || reaches_further(level))) ++level;
  return level;
}

}  // namespace

void BoundsGrid::put(std::uint32_t id, const Rect& bounds) {
  if (!is_finite(bounds)) return remove(id);
  if (id >= entries_.size()) entries_.resize(std::size_t{id} + 1);
  Entry& entry = entries_[id];
  const int level = level_of(bounds);
  const std::uint64_t key = key_of(level, cell_at(bounds.left(), level), cell_at(bounds.top(), level));
  entry.bounds = bounds;
  if (entry.key == key) return;
  if (entry.level != none) unlink(id);
  entry.key = key;
  entry.level = static_cast<std::uint8_t>(level);
  link(id);
}

void BoundsGrid::remove(std::uint32_t id) {
  if (!has(id)) return;
  unlink(id);
  entries_[id] = {};
}

void BoundsGrid::keep_first(std::uint32_t count) {
  for (std::size_t id = entries_.size(); id > count; --id) remove(static_cast<std::uint32_t>(id - 1));
  entries_.resize(std::min<std::size_t>(entries_.size(), count));
}

void BoundsGrid::clear() {
  *this = {};
}

std::size_t BoundsGrid::slot_of(std::uint64_t key) const {
  // Eight cells one below the other lie beside each other in memory, since they are mostly asked for together.
  constexpr std::uint64_t low = 7;
  std::size_t slot = static_cast<std::size_t>((mixed(key & ~low) & ~low) | (key & low)) & (cells_.size() - 1);
  while (cells_[slot].key != key && cells_[slot].key != no_key) slot = (slot + 1) & (cells_.size() - 1);
  return slot;
}

void BoundsGrid::link(std::uint32_t id) {
  make_room();
  Entry& entry = entries_[id];
  Cell& cell = cells_[slot_of(entry.key)];
  if (cell.key == no_key) ++used_cells_;
  cell.key = entry.key;
  entry.before = no_entry;
  entry.after = cell.first;
  if (cell.first != no_entry) entries_[cell.first].before = id;
  cell.first = id;
  ++in_level_[entry.level];
  ++size_;
}

void BoundsGrid::unlink(std::uint32_t id) {
  const Entry& entry = entries_[id];
  if (entry.before != no_entry)
    entries_[entry.before].after = entry.after;
  else
    cells_[slot_of(entry.key)].first = entry.after;
  if (entry.after != no_entry) entries_[entry.after].before = entry.before;
  --in_level_[entry.level];
  --size_;
}

// Keeps the table at most half full; cells that have become empty are dropped on the way. It is as large as all entries could
// need, so that what moves about in steady numbers asks for no memory.
void BoundsGrid::make_room() {
  const std::size_t wanted = 4 * (entries_.size() + 1);
  if (2 * (used_cells_ + 1) <= cells_.size() && wanted <= cells_.size()) return;
  spare_.swap(cells_);  // its memory is used again
  std::size_t room = std::max<std::size_t>(spare_.size(), 64);
  while (room < wanted) room *= 2;
  cells_.assign(room, {});
  spare_.reserve(room);
  used_cells_ = 0;
  for (const Cell& cell : spare_) {
    if (cell.first == no_entry) continue;
    cells_[slot_of(cell.key)] = cell;
    ++used_cells_;
  }
}

template <class Visit>
void BoundsGrid::visit_level(int level, const Rect& area, const Visit& visit) const {
  // A box reaches at most into the next cell to the right and below.
  const std::int64_t left = cell_at(area.left(), level) - 1, right = cell_at(area.right(), level);
  const std::int64_t top = cell_at(area.top(), level) - 1, bottom = cell_at(area.bottom(), level);
  for (std::int64_t x = left; x <= right; ++x)
    for (std::int64_t y = top; y <= bottom; ++y)
      for (std::uint32_t id = cells_[slot_of(key_of(level, x, y))].first; id != no_entry;
           id = entries_[id].after)
        if (share_a_point(entries_[id].bounds, area)) visit(id);
}

template <class Visit>
void BoundsGrid::visit_near(const Rect& area, const Visit& visit) const {
  if (!is_finite(area) || size_ == 0) return;
  const auto cells_along = [](float from, float to, int level) {
    return static_cast<double>(cell_at(to, level) - cell_at(from, level) + 2);
  };
  for (int level = 0; level < levels; ++level) {
    if (in_level_[static_cast<std::size_t>(level)] == 0) continue;
    const double cells =
        cells_along(area.left(), area.right(), level) * cells_along(area.top(), area.bottom(), level);
    if (level != top_level && cells <= static_cast<double>(entries_.size()) + 4) {
      visit_level(level, area, visit);
      continue;
    }
    // To look at every box is less work than at every cell; and those of the last level may be larger than a cell.
    for (std::uint32_t id = 0; id < entries_.size(); ++id)
      if (entries_[id].level == level && share_a_point(entries_[id].bounds, area)) visit(id);
  }
}

void BoundsGrid::find(const Rect& area, std::vector<std::uint32_t>& found) const {
  const auto start = static_cast<std::ptrdiff_t>(found.size());
  visit_near(area, [&found](std::uint32_t id) { found.push_back(id); });
  std::sort(found.begin() + start, found.end());
}

}  // namespace vole
