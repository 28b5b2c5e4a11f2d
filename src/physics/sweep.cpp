#include "vole/physics/sweep.hpp"

#include <algorithm>
#include <cstdlib>
#include <limits>

#include "vole/base/division.hpp"
#include "vole/physics/subpixel.hpp"

namespace vole {
namespace {

// A moment of the motion as the fraction top / bottom of it, bottom > 0.
struct Moment {
  std::int64_t top = 0;
  std::int64_t bottom = 1;

  // Both factors stay below 2^31 for motions of up to 8 million pixels.
  friend bool operator<=(const Moment& a, const Moment& b) { return a.top * b.bottom <= b.top * a.bottom; }
  // A line touched at the very end of the motion is not crossed.
  bool within_motion() const { return top < bottom; }
};

// One side of the box (its left and right, or its top and bottom) while it moves, in subpixels.
class Span {
 public:
  Span(std::int64_t start, std::int64_t size, std::int64_t motion, std::int64_t unit)
      : start_(start), size_(size), motion_(motion), unit_(unit), step_(motion > 0 ? 1 : -1) {
    leading_ = motion > 0 ? ceil_divide(start + size, unit) - 1 : floor_divide(start, unit);
  }

  bool moves() const { return motion_ != 0; }
  std::int64_t step() const { return step_; }
  std::int64_t motion() const { return motion_; }

  // The line that the leading edge crosses next, and when.
  std::int64_t next_line() const { return (leading_ + (step_ > 0 ? 1 : 0)) * unit_; }
  Moment next_crossing() const {
    const std::int64_t edge = step_ > 0 ? start_ + size_ : start_;
    return {std::abs(next_line() - edge), std::abs(motion_)};
  }
  std::int64_t next_cell() const { return leading_ + step_; }
  void enter_next_cell() { leading_ += step_; }

  // Where the span starts when its leading edge touches the next line.
  std::int64_t stopped() const { return step_ > 0 ? next_line() - size_ : next_line(); }
  // Rounded down. The exact start lies less than a lattice step above; grid lines lie on the lattice, so the
  // rounded span reaches into no cell that the exact one does not.
  std::int64_t start_at(const Moment& when) const {
    return start_ + floor_divide(motion_ * when.top, when.bottom);
  }
  std::int64_t end() const { return start_ + motion_; }

  // The cells that the span reaches into at a moment, first and last. The leading cell is counted as entered.
  std::int64_t first_cell(const Moment& when) const {
    if (step_ < 0 && moves()) return leading_;
    return floor_divide(start_ * when.bottom + motion_ * when.top, unit_ * when.bottom);
  }
  std::int64_t last_cell(const Moment& when) const {
    if (step_ > 0) return leading_;
    return ceil_divide((start_ + size_) * when.bottom + motion_ * when.top, unit_ * when.bottom) - 1;
  }

 private:
  std::int64_t start_;
  std::int64_t size_;
  std::int64_t motion_;
  std::int64_t unit_;
  std::int64_t step_;
  std::int64_t leading_;  // the furthest cell reached into so far, in the direction of the motion
};

// Far outside the grid nothing changes any more: longer motions are cut to keep products within 64 bits.
std::int64_t bounded(float pixels) {
  constexpr std::int64_t furthest = std::int64_t{1} << 30;
  return std::clamp(to_subpixels(pixels), -furthest, furthest);
}

struct Hit {
  bool any = false;
  IVec2 cell{0, 0};
};

// Whether one of the cells that `mover` is about to enter is solid, over the cells that `other` spans just
// then.
Hit entered(const SolidGrid& grid, const Span& mover, const Span& other, const Moment& when, bool along_x) {
  // All cells beyond an edge are alike, so one row or column of them is enough.
  const std::int64_t count = along_x ? grid.cells().y : grid.cells().x;
  const std::int64_t first = std::clamp<std::int64_t>(other.first_cell(when), -1, count);
  const std::int64_t last = std::clamp<std::int64_t>(other.last_cell(when), -1, count);
  for (std::int64_t across = first; across <= last; ++across) {
    const std::int64_t x = along_x ? mover.next_cell() : across;
    const std::int64_t y = along_x ? across : mover.next_cell();
    if (grid.solid(x, y)) return {true, {static_cast<int>(x), static_cast<int>(y)}};
  }
  return {};
}

Contact stopped_at(const Span& mover, const Span& other, const Moment& when, const Hit& hit, bool along_x) {
  const std::int64_t mine = mover.stopped();
  const std::int64_t others = other.start_at(when);
  const float my_rest = to_pixels(mover.end() - mine);
  const float other_rest = to_pixels(other.end() - others);
  const int normal = static_cast<int>(-mover.step());
  if (along_x)
    return {{to_pixels(mine), to_pixels(others)}, true, {normal, 0}, hit.cell, {my_rest, other_rest}};
  return {{to_pixels(others), to_pixels(mine)}, true, {0, normal}, hit.cell, {other_rest, my_rest}};
}

}  // namespace

Contact sweep_box(const SolidGrid& grid, const Rect& box, Vec2 motion) {
  const std::int64_t unit = std::int64_t{grid.cell()} * subpixels;
  Span x(bounded(box.at.x), std::max<std::int64_t>(bounded(box.size.x), 1), bounded(motion.x), unit);
  Span y(bounded(box.at.y), std::max<std::int64_t>(bounded(box.size.y), 1), bounded(motion.y), unit);
  while (true) {
    const bool x_next = x.moves() && x.next_crossing().within_motion();
    const bool y_next = y.moves() && y.next_crossing().within_motion();
    if (!x_next && !y_next) return {{to_pixels(x.end()), to_pixels(y.end())}};
    // At the very same moment the side goes first: the corner cell is then looked at with the second
    // crossing.
    const bool along_x = x_next && (!y_next || x.next_crossing() <= y.next_crossing());
    Span& mover = along_x ? x : y;
    const Span& other = along_x ? y : x;
    const Moment when = mover.next_crossing();
    const Hit hit = entered(grid, mover, other, when, along_x);
    if (hit.any) return stopped_at(mover, other, when, hit, along_x);
    mover.enter_next_cell();
  }
}

Moved move_box(const SolidGrid& grid, const Rect& box, Vec2 motion) {
  Moved moved;
  Rect now = box;
  // A contact ends one of the two directions, so the second slide is the last.
  for (int leg = 0; leg < 3; ++leg) {
    const Contact contact = sweep_box(grid, now, motion);
    now.at = contact.at;
    if (!contact.hit) break;
    if (contact.normal.x > 0) moved.left = true;
    if (contact.normal.x < 0) moved.right = true;
    if (contact.normal.y > 0) moved.above = true;
    if (contact.normal.y < 0) moved.below = true;
    motion = contact.normal.x != 0 ? Vec2{0, contact.rest.y} : Vec2{contact.rest.x, 0};
  }
  moved.at = now.at;
  return moved;
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
