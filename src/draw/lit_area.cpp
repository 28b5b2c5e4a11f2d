#include "vole/draw/lit_area.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "vole/base/trig.hpp"

namespace vole {
namespace {

double cross(LightCorner a, LightCorner b) {
  return a.x * b.y - a.y * b.x;
}

// From the left, over the upper half, to the left again: which half of the circle a direction is in.
int half_of(LightCorner at) {
  return at.y < 0 || (at.y == 0 && at.x < 0) ? 0 : 1;
}

// How far along a ray a wall's line lies, as a multiple of the ray; with the wall moved away from the lamp by `depth`.
double distance(LightCorner ray, LightCorner start, LightCorner end, double depth) {
  const LightCorner along = end - start;
  const double ahead = cross(ray, along);
  if (!(ahead > 0)) return 1e9;
  return (cross(start, along) + depth * std::sqrt(along.x * along.x + along.y * along.y)) / ahead;
}

// Two walls that meet are as far away, but for rounding.
bool level_with(double a, double b) {
  return std::abs(a - b) <= 1e-9 * std::max(a, b);
}

bool same_direction(LightCorner a, LightCorner b) {
  return cross(a, b) == 0 && a.x * b.x + a.y * b.y > 0;
}

}  // namespace

void LitArea::find(LightCorner lamp, float reach, std::span<const Wall> walls, const Beam& beam) {
  walls_.clear();
  events_.clear();
  active_.clear();
  corners_.clear();
  lamp_ = lamp;
  // The walls of a box, so that each ray ends.
  const double r = static_cast<double>(reach) + 1;
  const std::array<LightCorner, 4> box{LightCorner{-r, -r}, {r, -r}, {r, r}, {-r, r}};
  for (std::size_t i = 0; i < 4; ++i) add(box[(i + 1) % 4], box[i], 0);
  for (const Wall& wall : walls) {
    const LightCorner from = wall.from - lamp, to = wall.to - lamp;
    if (std::min(from.x, to.x) > r || std::max(from.x, to.x) < -r || std::min(from.y, to.y) > r ||
        std::max(from.y, to.y) < -r)
      continue;
    add(from, to, static_cast<double>(beam.depth));
  }
  add_cone(beam);
  sweep();
}

// Only what faces the lamp is seen.
void LitArea::add(LightCorner from, LightCorner to, double depth) {
  const LightCorner along = to - from;
  // Nearly edge on it shades nothing that could be told.
  if (!(cross(from, to) < -1e-9 * (along.x * along.x + along.y * along.y))) return;
  // Where it crosses the ray that the sweep begins with, it is cut in two.
  if (half_of(to) == 1 && half_of(from) == 0) {
    const double share = to.y / (to.y - from.y);
    const LightCorner cut{to.x + (from.x - to.x) * share, 0};
    if (cut.x < 0) {
      if (to.y > 0) add_seen(to, cut, depth, half_of(to), 2);
      if (from.y < 0) add_seen(cut, from, depth, -1, half_of(from));
      return;
    }
  }
  add_seen(to, from, depth, half_of(to), half_of(from));
}

void LitArea::add_seen(LightCorner start, LightCorner end, double depth, int first_half, int last_half) {
  const auto index = static_cast<std::uint32_t>(walls_.size());
  walls_.push_back({start, end, depth});
  events_.push_back({first_half, start, index, true});
  events_.push_back({last_half, end, index, false});
}

void LitArea::add_cone(const Beam& beam) {
  has_cone_ = beam.cone < 360;
  if (!has_cone_) return;
  wide_cone_ = beam.cone > 180;
  const auto ray = [](float degrees) {
    return LightCorner{static_cast<double>(cos_degrees(degrees)), static_cast<double>(sin_degrees(degrees))};
  };
  cone_start_ = ray(beam.direction - beam.cone / 2);
  cone_end_ = ray(beam.direction + beam.cone / 2);
  // Events without a wall: the sweep stops there.
  constexpr std::uint32_t no_wall = 0xffffffff;
  events_.push_back({half_of(cone_start_), cone_start_, no_wall, true});
  events_.push_back({half_of(cone_end_), cone_end_, no_wall, true});
}

void LitArea::sweep() {
  std::sort(events_.begin(), events_.end(), [](const Event& a, const Event& b) {
    if (a.half != b.half) return a.half < b.half;
    const double turn = a.half < 0 || a.half > 1 ? 0 : cross(a.at, b.at);
    if (turn != 0) return turn > 0;
    if (a.starts != b.starts) return b.starts;
    return a.wall < b.wall;
  });
  LightCorner before{-1, 0};
  for (std::size_t i = 0; i < events_.size(); ++i) {
    const Event& event = events_[i];
    const bool at_cut = event.half < 0 || event.half > 1;
    const LightCorner at = at_cut ? LightCorner{-1, 0} : event.at;
    if (!active_.empty() && !(event.half < 0) && !same_direction(before, at)) light_between(before, at);
    if (event.half >= 0) before = at;
    if (event.wall >= walls_.size()) continue;
    if (event.starts)
      active_.push_back(event.wall);
    else
      active_.erase(std::remove(active_.begin(), active_.end(), event.wall), active_.end());
  }
}

bool LitArea::shines(LightCorner from, LightCorner to) const {
  if (!has_cone_) return true;
  // The sweep stops at both sides of the cone, so the middle tells.
  const LightCorner middle = from * (1 / std::sqrt(from.x * from.x + from.y * from.y)) +
                             to * (1 / std::sqrt(to.x * to.x + to.y * to.y));
  const bool after_start = cross(cone_start_, middle) >= 0, before_end = cross(middle, cone_end_) >= 0;
  return wide_cone_ ? after_start || before_end : after_start && before_end;
}

// What is lit between two rays under which the same walls lie.
void LitArea::light_between(LightCorner from, LightCorner to) {
  if (!shines(from, to)) {
    if (corners_.empty() || !(corners_.back() == lamp_)) corners_.push_back(lamp_);
    return;
  }
  const auto how_far = [this](LightCorner ray, std::uint32_t wall) {
    return distance(ray, walls_[wall].start, walls_[wall].end, 0);
  };
  for (std::size_t parts = 0; parts <= active_.size(); ++parts) {
    // The nearest at the start; where several are, the one that is nearest afterwards.
    std::uint32_t nearest = active_[0];
    for (const std::uint32_t wall : active_) {
      const double its = how_far(from, wall), best = how_far(from, nearest);
      const bool level = level_with(its, best);
      if (level ? how_far(to, wall) < how_far(to, nearest) : its < best) nearest = wall;
    }
    // Another may cross it on the way.
    LightCorner end = to;
    for (const std::uint32_t wall : active_) {
      if (!(how_far(to, wall) < how_far(to, nearest))) continue;
      if (level_with(how_far(from, wall), how_far(from, nearest))) continue;
      const Seen &a = walls_[nearest], &b = walls_[wall];
      const LightCorner along = a.end - a.start, other = b.end - b.start;
      const double share = cross(b.start - a.start, other) / cross(along, other);
      const LightCorner meet = a.start + along * share;
      if (cross(from, meet) > 0 && cross(meet, end) > 0) end = meet;
    }
    light_up_to(walls_[nearest], from, end);
    if (end == to) return;
    from = end;
  }
}

void LitArea::light_up_to(const Seen& wall, LightCorner from, LightCorner to) {
  const auto add = [&](LightCorner ray) {
    const LightCorner corner = lamp_ + ray * distance(ray, wall.start, wall.end, wall.depth);
    if (corners_.empty() || !(corners_.back() == corner)) corners_.push_back(corner);
  };
  add(from);
  add(to);
}

}  // namespace vole
