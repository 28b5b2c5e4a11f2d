#include "vole/physics/box_in_grid.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "box_motion.hpp"

namespace vole {

Contact sweep_box(const SolidGrid& grid, const Rect& box, Vec2 motion) {
  const LatticeBox from = to_lattice(box);
  const LatticePoint by = to_lattice(motion);
  const BoxLeg leg = BoxSurroundings(grid, {}).sweep(from, by);
  Contact contact{to_vec(leg.at)};
  if (!leg.hit) return contact;
  contact.hit = true;
  contact.normal = unit_normal(leg.line);
  contact.cell = {static_cast<int>(leg.what.x), static_cast<int>(leg.what.y)};
  contact.rest = to_vec(by - (leg.at - from.at()));
  return contact;
}

Moved move_box(const SolidGrid& grid, const Rect& box, Vec2 motion) {
  const BoxSurroundings around(grid, {});
  const BoxMoved moved = BoxMotion(around, to_lattice(box)).slide(to_lattice(motion));
  return {to_vec(moved.box.at()), moved.left.any, moved.right.any, moved.above.any, moved.below.any};
}

namespace {

// From when until when, in shares of the motion, two spans overlap that start `apart` from each other.
struct While {
  double from = -std::numeric_limits<double>::infinity();
  double until = std::numeric_limits<double>::infinity();

  void also(float start, float size, float other_start, float other_size, float other_motion, float motion) {
    const double lead =
        static_cast<double>(other_start) + static_cast<double>(other_size) - static_cast<double>(start);
    const double gap =
        static_cast<double>(start) + static_cast<double>(size) - static_cast<double>(other_start);
    const double speed = static_cast<double>(other_motion) - static_cast<double>(motion);
    if (speed == 0) {
      if (lead <= 0 || gap <= 0) until = -1;
      return;
    }
    const double a = -lead / speed, b = gap / speed;
    from = std::max(from, std::min(a, b));
    until = std::min(until, std::max(a, b));
  }
  bool within_motion() const { return from < until && from < 1 && until > 0; }
};

}  // namespace

bool boxes_meet(const Rect& a, Vec2 a_motion, const Rect& b, Vec2 b_motion) {
  While overlapping;
  overlapping.also(a.at.x, a.size.x, b.at.x, b.size.x, b_motion.x, a_motion.x);
  overlapping.also(a.at.y, a.size.y, b.at.y, b.size.y, b_motion.y, a_motion.y);
  return overlapping.within_motion();
}

}  // namespace vole
