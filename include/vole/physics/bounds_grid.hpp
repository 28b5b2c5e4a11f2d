// Which of many boxes are near: the first, coarse look of every question about bodies.
//
//   BoundsGrid grid;
//   grid.put(7, bounds_of_body_7);   // again whenever it has moved
//   grid.find(area, near);           // the ids of all whose boxes share a point with the area, in order
//
// Method: a hierarchical grid kept in a hash table (C. Ericson, "Real-Time Collision Detection", 2005, chapter 7.2): a box
// lies in one cell, of the grid whose cells are as large as it or a little larger. To move within its cell costs nothing;
// what lies still costs nothing at all.
#pragma once

#include <array>
#include <cstdint>
#include <vector>

#include "vole/base/rect.hpp"

namespace vole {

class BoundsGrid {
 public:
  // Adds a box, or moves it. Ids are small numbers: memory grows with the largest. A box that is not of finite numbers is
  // removed.
  void put(std::uint32_t id, const Rect& bounds);
  void remove(std::uint32_t id);
  // Removes all with ids from `count` on.
  void keep_first(std::uint32_t count);
  void clear();

  bool has(std::uint32_t id) const { return id < entries_.size() && entries_[id].level != none; }
  const Rect& bounds(std::uint32_t id) const { return entries_[id].bounds; }
  std::size_t size() const { return size_; }

  // Appends the ids of the boxes that share a point with the area, edges included, in increasing order.
  void find(const Rect& area, std::vector<std::uint32_t>& found) const;

 private:
  static constexpr std::uint8_t none = 255;
  static constexpr std::uint32_t no_entry = 0xffffffffu;
  static constexpr std::uint64_t no_key = ~std::uint64_t{0};
  static constexpr int levels = 20;

  struct Entry {
    Rect bounds;
    std::uint64_t key = no_key;       // of its cell
    std::uint32_t before = no_entry;  // in its cell
    std::uint32_t after = no_entry;
    std::uint8_t level = none;
  };
  struct Cell {
    std::uint64_t key = no_key;
    std::uint32_t first = no_entry;
  };

  std::size_t slot_of(std::uint64_t key) const;
  void link(std::uint32_t id);
  void unlink(std::uint32_t id);
  void make_room();
  template <class Visit>
  void visit_near(const Rect& area, const Visit& visit) const;
  template <class Visit>
  void visit_level(int level, const Rect& area, const Visit& visit) const;

  std::vector<Entry> entries_;  // by id
  std::vector<Cell> cells_;     // a power of two of them
  std::vector<Cell> spare_;     // the table before
  std::size_t used_cells_ = 0;  // with a key, though perhaps without entries
  std::size_t size_ = 0;
  std::array<std::uint32_t, levels> in_level_{};
};

}  // namespace vole
