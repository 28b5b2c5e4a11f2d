#include "difference.hpp"

#include <algorithm>
#include <span>

namespace vole {
namespace {

constexpr Vec2 nowhere{0, 0};

// The corners of a shape in order, from the first on and around. Of one that is turned by half a turn the first is what
// was the last.
class Around {
 public:
  Around(std::span<const Vec2> corners, bool half_turned)
      : corners_(corners), sign_(half_turned ? -1.0 : 1.0) {
    if (half_turned)
      first_ = static_cast<std::size_t>(std::max_element(corners.begin(), corners.end(), comes_before) -
                                        corners.begin());
  }

  bool done() const { return passed_ == (corners_.size() < 2 ? 0 : corners_.size()); }
  Point corner() const { return at(passed_); }
  Point edge() const { return at(passed_ + 1) - at(passed_); }
  void pass_edge() { ++passed_; }

 private:
  Point at(std::size_t i) const { return exact(corners_[(first_ + i) % corners_.size()]) * sign_; }

  std::span<const Vec2> corners_;
  double sign_;
  std::size_t first_ = 0;
  std::size_t passed_ = 0;
};

}  // namespace

Difference::Difference(const Shape& other, const Shape* shape, Point apart)
    : radius_(static_cast<double>(other.radius()) + (shape ? static_cast<double>(shape->radius()) : 0.0)) {
  Around theirs(other.corners(), false);
  Around ours(shape ? shape->corners() : std::span(&nowhere, 1), true);
  if (theirs.done() && ours.done()) add(theirs.corner(), ours.corner(), apart);
  while (!theirs.done() || !ours.done()) {
    add(theirs.corner(), ours.corner(), apart);
    const double side = theirs.done() ? -1 : ours.done() ? 1 : cross(theirs.edge(), ours.edge());
    if (side >= 0) theirs.pass_edge();
    if (side <= 0) ours.pass_edge();
  }
}

void Difference::add(Point other, Point shape, Point apart) {
  corners_[count_++] = {other + shape + apart, other};
}

}  // namespace vole
