// All pairs of many boxes that touch: the first, coarse look for what may meet.
//
//   PairFinder finder;
//   finder.find(boxes, pairs);   // by their places in the list
//
// Method: the boxes are dealt to strips about twice as high as they are, and each strip is swept from left to right (sweep
// and prune: J. Cohen et al., "I-COLLIDE", 1995), those that may pair alone. The work grows with the number of boxes and of
// pairs that may be, wherever they lie: a heap of boxes that ask nothing of each other costs no more than if they lay apart.
#pragma once

#include <cstdint>
#include <span>
#include <utility>
#include <vector>

#include "vole/base/rect.hpp"

namespace vole {

using IndexPair = std::pair<std::uint32_t, std::uint32_t>;

// What a box is and what it is looked for with, as bits. Two make a pair when one is what the other wants, and each notices
// the category of the other.
struct PairRoles {
  std::uint64_t is = ~std::uint64_t{0};
  std::uint64_t wants = ~std::uint64_t{0};
  std::uint64_t category = ~std::uint64_t{0};
  std::uint64_t notices = ~std::uint64_t{0};

  bool pairs_with(const PairRoles& other) const {
    return ((is & other.wants) | (other.is & wants)) != 0 && (category & other.notices) != 0 &&
           (other.category & notices) != 0;
  }
  friend bool operator==(const PairRoles&, const PairRoles&) = default;
};

class PairFinder {
 public:
  // Appends the pairs of boxes that share a point, edges included: the smaller place first, in increasing order. Boxes that
  // are not of finite numbers touch nothing.
  void find(std::span<const Rect> boxes, std::vector<IndexPair>& found) { find(boxes, {}, found); }
  // The same, of those alone that pair by their roles, one for each box. Throws Error when there are more than `most`.
  void find(std::span<const Rect> boxes, std::span<const PairRoles> roles, std::vector<IndexPair>& found);
  static constexpr std::size_t most = 4'000'000;

 private:
  // A box in one of its strips.
  struct Dealt {
    float left, right, top, bottom;
    std::uint32_t place, roles;
    std::int64_t strip;
    bool starts_here;  // its upper edge lies in this strip
  };

  void find_roles(std::span<const PairRoles> roles);
  bool roles_pair(std::uint32_t a, std::uint32_t b) const {
    return pairing_[a * distinct_roles_.size() + b] != 0;
  }
  std::uint32_t roles_of(std::uint32_t place) const {
    return place < roles_of_.size() ? roles_of_[place] : 0;
  }
  void deal(std::span<const Rect> boxes);
  // Of a strip, all of one group, and of two groups.
  void sweep(std::span<Dealt> strip, std::vector<IndexPair>& found) const;
  void sweep_alike(std::span<const Dealt> group, std::vector<IndexPair>& found) const;
  void sweep_two(std::span<const Dealt> group, std::span<const Dealt> other,
                 std::vector<IndexPair>& found) const;
  void add_tall(std::span<const Rect> boxes, std::vector<IndexPair>& found) const;
  void add(const Dealt& a, const Dealt& b, std::vector<IndexPair>& found) const;
  void add(std::uint32_t a, std::uint32_t b, std::vector<IndexPair>& found) const;

  // Memory that is used again.
  std::vector<PairRoles> distinct_roles_;  // roles that boxes have
  std::vector<std::uint8_t> pairing_;      // which of them pair with which
  std::vector<std::uint32_t>
      roles_of_;  // of each box, by its place; where no roles are given all are of the first
  std::vector<Dealt> dealt_, sorted_;
  std::vector<std::uint32_t> ends_;  // of each group of strips in `sorted_`
  std::vector<std::uint32_t> tall_;  // boxes much higher than the others
  double height_ = 1;                // of a strip
};

}  // namespace vole
