// All pairs of many boxes that touch: the first, coarse look for what may meet.
//
//   PairFinder finder;
//   finder.find(boxes, pairs);   // by their places in the list
//
// Method: the boxes are dealt to strips about twice as high as they are, and each strip is swept from left to right (sweep
// and prune: J. Cohen et al., "I-COLLIDE", 1995). The work grows with the number of boxes and of pairs, wherever they lie.
#pragma once

#include <cstdint>
#include <span>
#include <utility>
#include <vector>

#include "vole/base/rect.hpp"

namespace vole {

using IndexPair = std::pair<std::uint32_t, std::uint32_t>;

class PairFinder {
 public:
  // Appends the pairs of boxes that share a point, edges included: the smaller place first, in increasing order. Boxes that
  // are not of finite numbers touch nothing.
  void find(std::span<const Rect> boxes, std::vector<IndexPair>& found);

 private:
  // A box in one of its strips.
  struct Dealt {
    float left, right, top, bottom;
    std::uint32_t place;
    std::int64_t strip;
    bool starts_here;  // its upper edge lies in this strip
  };

  void deal(std::span<const Rect> boxes);
  void sweep(std::span<Dealt> strip, std::vector<IndexPair>& found) const;
  void add_tall(std::span<const Rect> boxes, std::vector<IndexPair>& found) const;

  // Memory that is used again.
  std::vector<Dealt> dealt_, sorted_;
  std::vector<std::uint32_t> ends_;  // of each group of strips in `sorted_`
  std::vector<std::uint32_t> tall_;  // boxes much higher than the others
  double height_ = 1;                // of a strip
};

}  // namespace vole
