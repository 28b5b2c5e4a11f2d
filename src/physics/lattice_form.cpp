#include "vole/physics/lattice_form.hpp"

#include <algorithm>
#include <cmath>
#include <limits>
#include <utility>

#include "vole/physics/subpixel.hpp"

namespace vole {
namespace {

LatticePoint on_lattice_point(Vec2 point) {
  return {to_subpixels(point.x), to_subpixels(point.y)};
}

}  // namespace

Vec2 unit_normal(const LatticeLine& line) {
  const double x = static_cast<double>(line.x), y = static_cast<double>(line.y);
  const double length = std::sqrt(x * x + y * y);
  return {static_cast<float>(x / length), static_cast<float>(y / length)};
}

LatticeForm::LatticeForm(const Shape& shape) {
  const std::span<const Vec2> corners = shape.corners();
  const LatticePoint first = on_lattice_point(corners[0]);
  bounds_ = {first.x, first.y, first.x, first.y};
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const LatticePoint from = on_lattice_point(corners[i]);
    const LatticePoint edge = on_lattice_point(corners[(i + 1) % corners.size()]) - from;
    bounds_ = {std::min(bounds_.left, from.x), std::min(bounds_.top, from.y), std::max(bounds_.right, from.x),
               std::max(bounds_.bottom, from.y)};
    // Corners go clockwise on the screen, so outside is to the left of an edge.
    if (edge.x != 0 && edge.y != 0) slants_[count_++] = {edge.y, -edge.x, edge.y * from.x - edge.x * from.y};
  }
  if (shape.radius() > 0) widen(shape);
}

// The lines that touch a round shape from outside, every 22.5 degrees.
void LatticeForm::widen(const Shape& shape) {
  const std::int64_t radius = to_subpixels(shape.radius());
  bounds_ = {bounds_.left - radius, bounds_.top - radius, bounds_.right + radius, bounds_.bottom + radius};
  const auto add = [&](LatticePoint normal) {
    const double length = std::sqrt(static_cast<double>(normal.x * normal.x + normal.y * normal.y));
    std::int64_t furthest = std::numeric_limits<std::int64_t>::min();
    for (const Vec2 corner : shape.corners()) {
      const LatticePoint at = on_lattice_point(corner);
      furthest = std::max(furthest, normal.x * at.x + normal.y * at.y);
    }
    const double reach = std::ceil(length * static_cast<double>(radius));
    slants_[count_++] = {normal.x, normal.y, furthest + static_cast<std::int64_t>(reach)};
  };
  // The straight sides of a capsule, which are its slants so far.
  const std::size_t straight = std::exchange(count_, std::uint8_t{0});
  for (std::size_t i = 0; i < straight; ++i) add({slants_[i].x, slants_[i].y});
  constexpr std::array<LatticePoint, 3> quarter{LatticePoint{237, 98}, {181, 181}, {98, 237}};
  for (const LatticePoint normal : quarter)
    for (int turn = 0; turn < 4; ++turn) {
      const LatticePoint mixed = turn % 2 == 0 ? normal : LatticePoint{-normal.y, normal.x};
      add(turn < 2 ? mixed : LatticePoint{-mixed.x, -mixed.y});
    }
}

std::span<const LatticeLine> LatticeForm::slants() const {
  return {slants_.data(), count_};
}

bool LatticeForm::overlaps(const LatticeBox& box, LatticePoint origin) const {
  bool inside = true;
  visit_lines(origin, [&](const LatticeLine& line) { inside = inside && line.gap(box) < 0; });
  return inside;
}

bool operator==(const LatticeForm& a, const LatticeForm& b) {
  return a.bounds_ == b.bounds_ &&
         std::equal(a.slants().begin(), a.slants().end(), b.slants().begin(), b.slants().end());
}

}  // namespace vole
