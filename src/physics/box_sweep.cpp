#include "box_sweep.hpp"

#include <cstdlib>

#include "vole/base/division.hpp"

namespace vole {
namespace {

// From when until when a box is inside a form.
struct Passage {
  Moment enters{-1, 1};
  Moment leaves{1, 1};
  LatticeLine over;
  bool apart = false;    // it never is
  bool outside = false;  // at the start

  void clip(const LatticeLine& line, const LatticeBox& box, LatticePoint motion) {
    const std::int64_t gap = line.gap(box), speed = line.along(motion);
    if (gap >= 0) {
      outside = true;
      // Along an edge, or away from it, nothing is entered.
      if (speed >= 0) {
        apart = true;
      } else if (const Moment when{gap, -speed}; enters <= when) {
        enters = when;
        over = line;
      }
    } else if (speed > 0) {
      const Moment when{-gap, speed};
      if (when < leaves) leaves = when;
    }
  }
};

}  // namespace

bool BoxSweep::meet(const LatticeForm& form, LatticePoint origin, OneWay one_way) {
  Passage passage;
  form.visit_lines(origin, [&](const LatticeLine& line) { passage.clip(line, box_, motion_); });
  if (passage.apart || !passage.outside || !(passage.enters < passage.leaves)) return false;
  if (!(passage.enters < when_) || !holds(one_way, passage.over.x, passage.over.y)) return false;
  when_ = passage.enters;
  line_ = passage.over;
  hit_ = true;
  return true;
}

LatticePoint BoxSweep::stop() const {
  LatticePoint gone{when_.of(motion_.x), when_.of(motion_.y)};
  const std::int64_t inside = hit_ ? -line_.gap(box_.moved_by(gone)) : 0;
  if (inside <= 0) return box_.at() + gone;
  // Between two lattice points the one outside is taken, along the axis on which it is near.
  const auto outwards = [inside](std::int64_t side) {
    return side > 0 ? ceil_divide(inside, side) : -ceil_divide(inside, -side);
  };
  if (std::abs(line_.y) >= std::abs(line_.x))
    gone.y += outwards(line_.y);
  else
    gone.x += outwards(line_.x);
  return box_.at() + gone;
}

bool may_hold(const LatticeForm& form, LatticePoint origin, OneWay one_way, const LatticeBox& box) {
  bool outside = false, on_its_side = false;
  form.visit_lines(origin, [&](const LatticeLine& line) {
    if (line.gap(box) < 0) return;
    outside = true;
    on_its_side = on_its_side || holds(one_way, line.x, line.y);
  });
  return outside && on_its_side;
}

}  // namespace vole
