#include "box_motion.hpp"

#include <algorithm>
#include <cmath>
#include <cstdlib>
#include <limits>

#include "moment.hpp"
#include "widths.hpp"

namespace vole {
namespace {

constexpr int most_legs = 64;

double length_of(const LatticeLine& line) {
  return std::sqrt(static_cast<double>(line.x) * static_cast<double>(line.x) +
                   static_cast<double>(line.y) * static_cast<double>(line.y));
}

// The part of a motion that goes along a line, rounded so that it leads to no place inside.
LatticePoint along(const LatticeLine& line, LatticePoint motion) {
  if (line.x == 0) return {motion.x, 0};
  if (line.y == 0) return {0, motion.y};
  const double x = static_cast<double>(line.x), y = static_cast<double>(line.y);
  const double share =
      (static_cast<double>(motion.x) * -y + static_cast<double>(motion.y) * x) / (x * x + y * y);
  LatticePoint slid{static_cast<std::int64_t>(share * -y), 0};
  // x * slid.x + y * slid.y is at least 0, and just so.
  slid.y = line.y > 0 ? ceil_divide(-line.x * slid.x, line.y) : floor_divide(line.x * slid.x, -line.y);
  return slid;
}

// How far one has gone along a line of which the way across is known.
double length_along(const LatticeLine& line, std::int64_t across) {
  return static_cast<double>(std::abs(across)) * length_of(line) / static_cast<double>(std::abs(line.y));
}

}  // namespace

// A slope of just that steepness is ground, whatever rounding made of its tangent.
bool BoxMotion::is_ground(const LatticeLine& line) const {
  return line.y < 0 &&
         static_cast<double>(std::abs(line.x)) <= static_cast<double>(-line.y) * steepest_ * 1.000001;
}

BoxLeg BoxMotion::go(LatticePoint motion) {
  const BoxLeg leg = around_.sweep(moved_.box, motion);
  moved_.box = moved_.box.moved_by(leg.at - moved_.box.at());
  return leg;
}

void BoxMotion::hold(const LatticeLine& line, const Met& what) {
  if (moved_.line_count < moved_.lines.size()) moved_.lines[moved_.line_count++] = line;
  if (is_ground(line))
    moved_.below.set(line, what);
  else if (line.y > 0 && line.y >= std::abs(line.x))
    moved_.above.set(line, what);
  else
    (line.x > 0 ? moved_.left : moved_.right).set(line, what);
}

// What is left of a motion when nothing that held the box is gone into again.
LatticePoint BoxMotion::along_held(LatticePoint rest) const {
  const LatticePoint slid = along(moved_.lines[moved_.line_count - 1], rest);
  for (std::size_t i = 0; i < moved_.line_count; ++i)
    if (moved_.lines[i].along(slid) < 0) return {0, 0};
  return slid;
}

// A corner that holds the box by little is gone around, at the speed of the motion.
bool BoxMotion::slip_past(const BoxLeg& leg, LatticePoint& rest) {
  const bool across = leg.line.x == 0;  // it is gone around to the left or right
  if (slip_ == 0 || (leg.line.x != 0 && leg.line.y != 0) || leg.line.y < 0) return false;
  const LatticeBox& box = moved_.box;
  const LatticeBox edge = leg.form->bounds().moved_by(leg.origin);
  const std::int64_t back = across ? box.right - edge.left : box.bottom - edge.top;
  const std::int64_t forth = across ? edge.right - box.left : edge.bottom - box.top;
  const std::int64_t way = back <= forth ? -back : forth;
  if (std::abs(way) > slip_) return false;
  const auto sideways = [across](std::int64_t by) {
    return across ? LatticePoint{by, 0} : LatticePoint{0, by};
  };
  const LatticePoint onwards = across ? LatticePoint{0, rest.y} : LatticePoint{rest.x, 0};
  const LatticeBox past = box.moved_by(sideways(way));
  if (around_.sweep(box, sideways(way)).hit || around_.sweep(past, onwards).at == past.at()) return false;
  const std::int64_t speed = std::abs(across ? rest.y : rest.x);
  const std::int64_t gone = std::clamp(way, -speed, speed);
  moved_.box = box.moved_by(sideways(gone));
  rest = gone == way ? onwards : LatticePoint{0, 0};
  return true;
}

// The motion that is left when it lands; none when it does not.
LatticePoint BoxMotion::fly_to_ground(LatticePoint motion, bool lands) {
  for (int leg = 0; leg < 8 && !(motion == LatticePoint{0, 0}); ++leg) {
    const LatticePoint from = moved_.box.at();
    const BoxLeg way = go(motion);
    if (!way.hit) break;
    motion = motion - (way.at - from);
    if (slip_past(way, motion)) continue;
    hold(way.line, way.what);
    if (lands && is_ground(way.line)) return motion;
    motion = along_held(motion);
  }
  return {0, 0};
}

BoxMoved BoxMotion::slide(LatticePoint motion) {
  fly_to_ground(motion, false);
  return moved_;
}

BoxMoved BoxMotion::fly(LatticePoint motion) {
  const LatticePoint rest = fly_to_ground(motion, true);
  return moved_.below.any ? walk(static_cast<double>(rest.x)) : moved_;
}

// Of the lines of a form on which the box stands, the one that leads on in the direction.
void BoxMotion::consider(Support& best, const LatticeForm& form, LatticePoint origin, const Met& met,
                         int direction) const {
  Support here{false, {}, met, std::numeric_limits<std::int64_t>::max()};
  const auto falls = [direction](const LatticeLine& a, const LatticeLine& b) {
    return direction * (a.x * -b.y - b.x * -a.y);  // above 0: a falls more, or rises less
  };
  form.visit_lines(origin, [&](const LatticeLine& line) {
    if (line.y < 0 && line.gap(moved_.box) >= 0 && (!here.any || falls(line, here.line) > 0)) {
      here.any = true;
      here.line = line;
    }
  });
  if (!here.any) return;
  form.visit_lines(origin, [&](const LatticeLine& line) {
    const std::int64_t gap = line.gap(moved_.box), opens = falls(line, here.line);
    if (gap >= 0 || opens <= 0) return;
    // A product of three of a shape's lengths: see widths.hpp.
    const Wide room = static_cast<Wide>(-gap) * -here.line.y;
    const Wide reach = (room + opens - 1) / opens;
    if (reach < here.reach) here.reach = static_cast<std::int64_t>(reach);
  });
  const std::int64_t lower = best.any ? falls(here.line, best.line) : -1;
  if (lower < 0 || (lower == 0 && here.reach > best.reach)) best = here;
}

BoxMotion::Support BoxMotion::support(int direction) const {
  Support best;
  const LatticeBox lower = moved_.box.moved_by({0, 1});
  around_.visit_near(moved_.box,
                     [&](const LatticeForm& form, LatticePoint origin, OneWay one_way, const Met& met) {
                       if (form.overlaps(lower, origin) && may_hold(form, origin, one_way, moved_.box))
                         consider(best, form, origin, met, direction);
                     });
  return best;
}

// One leg of a walk: along one line, as far as it reaches or until something is in the way, which is what the next leg
// goes along. What is left of the length.
double BoxMotion::walk_leg(const Support& on, double length, int direction, Support& next) {
  const double ratio = static_cast<double>(-on.line.y) / length_of(on.line);
  const std::int64_t across = std::min(static_cast<std::int64_t>(length * ratio), on.reach);
  if (across == 0) return length;
  const std::int64_t room = on.line.gap(moved_.box) + on.line.x * direction * across;
  const LatticePoint from = moved_.box.at();
  const BoxLeg leg = go({direction * across, floor_divide(room, -on.line.y)});
  if (leg.hit && !is_ground(leg.line)) {
    hold(leg.line, leg.what);
    return 0;
  }
  if (leg.hit) consider(next, *leg.form, leg.origin, leg.what, direction);
  return std::max(length - length_along(on.line, leg.at.x - from.x), 0.0);
}

// Says on what it stands.
void BoxMotion::stand() {
  for (const int direction : {1, -1}) {
    const Support on = support(direction);
    if (!on.any || !is_ground(on.line)) continue;
    moved_.below.set(on.line, on.what);
    return;
  }
}

BoxMoved BoxMotion::walk(double length) {
  const int direction = length < 0 ? -1 : 1;
  // No further than positions are let in, whatever speed a state that was read says.
  constexpr double furthest = furthest_pixels * subpixels;
  double left = std::abs(length) <= furthest ? std::abs(length) : length == length ? furthest : 0.0;
  Support next;
  for (int leg = 0; leg < most_legs && left > 0; ++leg) {
    Support on = next.any ? next : support(direction);
    next = {};
    if (!on.any && go({0, 2}).hit) on = support(direction);
    if (!on.any) break;
    if (!is_ground(on.line)) {
      if (on.line.x * direction > 0) break;
      hold(on.line, on.what);
      left = 0;
      break;
    }
    const double before = left;
    left = walk_leg(on, left, direction, next);
    if (left == before && !next.any) break;  // less than a subpixel
  }
  moved_.below = {};
  stand();
  const auto whole = static_cast<std::int64_t>(left);
  if (!moved_.below.any && whole > 0) {
    // The ground has ended.
    fly_to_ground({direction * whole, 0}, false);
    left -= static_cast<double>(whole);
  }
  moved_.rest = direction * (left < 1 ? left : 0);
  return moved_;
}

}  // namespace vole
