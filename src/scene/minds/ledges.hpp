// Where in a level a body could stand.
#pragma once

#include "side_play.hpp"
#include "vole/scene/minds/reach.hpp"

namespace vole {

// Column by column from left to right.
class LedgeSeeker {
 public:
  // In columns that are `apart` pixels apart, the first so far from the level's left edge. Ground steeper than so many degrees is a wall.
  LedgeSeeker(float steepest, float apart);

  // Whether there was one.
  bool look_at_next_column(const SidePlay& play);
  std::size_t spots() const { return spots_; }
  // Spots beside each other as one ledge; from top to bottom. Once.
  std::vector<Ledge> take_ledges();

 private:
  std::vector<Vec2> spots_in_column(const SidePlay& play, float x) const;

  float steepest_, apart_, x_;
  std::size_t spots_ = 0;
  std::vector<Ledge> ledges_;
  std::vector<std::size_t> open_;  // the places in that list of those that end in the last column
};

}  // namespace vole
