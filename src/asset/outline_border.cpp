#include "outline_border.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "vole/asset/outline.hpp"
#include "vole/base/error.hpp"

namespace vole {
namespace {

constexpr std::size_t most_corners = 1000;           // of all loops when they are simplified
constexpr std::size_t most_border_corners = 40'000;  // and before

[[noreturn]] void throw_ragged() {
  throw Error(FilePosition{}, "the outline has too many corners", "a larger \"error\" makes it simpler");
}

// Follows the borders of what is opaque in a frame.
class BorderFollower {
 public:
  explicit BorderFollower(const Frame& frame) : frame_(frame), size_(frame.area.size) {
    seen_.resize(static_cast<std::size_t>(size_.x) * static_cast<std::size_t>(size_.y));
  }

  // Those that are larger than the error.
  std::vector<Loop> follow_all(float error) {
    std::vector<Loop> loops;
    std::size_t corners = 0;
    for (int y = 0; y < size_.y; ++y)
      for (int x = 0; x < size_.x; ++x) {
        if (!is_opaque({x, y}) || is_opaque({x, y - 1}) || seen({x, y})) continue;
        Loop loop = follow({x, y});
        if (!is_larger(loop, error)) continue;
        corners += loop.size();
        if (corners > most_border_corners) throw_ragged();
        loops.push_back(std::move(loop));
      }
    return loops;
  }

 private:
  enum Way { right, down, left, up };
  static IVec2 step(int way) {
    constexpr std::array<IVec2, 4> steps{IVec2{1, 0}, {0, 1}, {-1, 0}, {0, -1}};
    return steps[static_cast<std::size_t>(way & 3)];
  }

  bool is_opaque(IVec2 pixel) const {
    return IRect{{0, 0}, size_}.contains(pixel) &&
           frame_.picture->row(frame_.area.top() + pixel.y)[frame_.area.left() + pixel.x].a >= 128;
  }
  std::vector<bool>::reference seen(IVec2 pixel) {
    return seen_[static_cast<std::size_t>(pixel.y) * static_cast<std::size_t>(size_.x) +
                 static_cast<std::size_t>(pixel.x)];
  }

  // The pixel beside the way ahead of a crossing of pixels' borders.
  bool opaque_ahead(IVec2 at, int way, bool on_the_right) const {
    const IVec2 ahead = step(way), right_of_it = step(way + 1);
    const IVec2 sum = ahead + (on_the_right ? right_of_it : -right_of_it);
    return is_opaque(at + IVec2{sum.x < 0 ? -1 : 0, sum.y < 0 ? -1 : 0});
  }

  // Along the upper border of a pixel, and around. Pixels that share a corner only are not joined: there the corner is cut,
  // so that the loops do not touch.
  Loop follow(IVec2 pixel) {
    const IVec2 start = pixel;
    IVec2 at = start;
    int way = right;
    Loop loop;
    do {
      if (way == right) seen(at) = true;
      at += step(way);
      const bool on_the_left = opaque_ahead(at, way, false);
      const int turned = !opaque_ahead(at, way, true) ? way + 1 : on_the_left ? way + 3 : way;
      const IVec2 corner = (at + frame_.offset) * outline_steps;
      const bool touches = on_the_left && turned == way + 1;
      if (touches) loop.push_back(corner - step(way));
      if (touches) loop.push_back(corner + step(turned));
      if (!touches && turned != way) loop.push_back(corner);
      if (loop.size() > most_border_corners) throw_ragged();
      way = turned & 3;
    } while (at != start || way != right);
    return loop;
  }

  static bool is_larger(const Loop& loop, float error) {
    IVec2 least = loop[0], most = loop[0];
    for (const IVec2 corner : loop) {
      least = {std::min(least.x, corner.x), std::min(least.y, corner.y)};
      most = {std::max(most.x, corner.x), std::max(most.y, corner.y)};
    }
    const IVec2 size = most - least;
    return static_cast<float>(std::max(size.x, size.y)) > error * outline_steps;
  }

  const Frame& frame_;
  IVec2 size_;
  std::vector<bool> seen_;  // upper borders of pixels
};

double square_of_distance(IVec2 point, IVec2 from, IVec2 to) {
  const double x = to.x - from.x, y = to.y - from.y, px = point.x - from.x, py = point.y - from.y;
  const double length = x * x + y * y;
  const double along = length == 0 ? 0 : std::clamp((px * x + py * y) / length, 0.0, 1.0);
  const double dx = px - x * along, dy = py - y * along;
  return dx * dx + dy * dy;
}

// Keeps of a piece of a loop, whose ends are kept, what is further than the error from the straight line.
void keep_corners(const Loop& loop, std::size_t first, std::size_t last, double error,
                  std::vector<bool>& kept) {
  std::vector<std::pair<std::size_t, std::size_t>> pieces{{first, last}};
  while (!pieces.empty()) {
    const auto [from, to] = pieces.back();
    pieces.pop_back();
    double furthest = error * error;
    std::size_t corner = 0;
    for (std::size_t i = from + 1; i < to; ++i) {
      const double distance = square_of_distance(loop[i], loop[from], loop[to % loop.size()]);
      if (distance <= furthest) continue;
      furthest = distance;
      corner = i;
    }
    if (corner == 0) continue;
    kept[corner] = true;
    pieces.push_back({from, corner});
    pieces.push_back({corner, to});
  }
}

Loop simplified(const Loop& loop, double error) {
  std::size_t opposite = 0;
  for (std::size_t i = 0; i < loop.size(); ++i)
    if (square_of_distance(loop[i], loop[0], loop[0]) > square_of_distance(loop[opposite], loop[0], loop[0]))
      opposite = i;
  std::vector<bool> kept(loop.size(), false);
  kept[0] = kept[opposite] = true;
  keep_corners(loop, 0, opposite, error, kept);
  keep_corners(loop, opposite, loop.size(), error, kept);
  Loop simple;
  for (std::size_t i = 0; i < loop.size(); ++i)
    if (kept[i]) simple.push_back(loop[i]);
  return simple;
}

struct Side {
  IVec2 from, to;
  std::size_t loop, place, count;

  bool follows(const Side& other) const { return loop == other.loop && (other.place + 1) % count == place; }
};

// Where one ends the next begins, and there alone they meet.
bool meet(const Side& a, const Side& b) {
  if (b.follows(a)) return folds(a.from, a.to, b.to);
  if (a.follows(b)) return meet(b, a);
  return lines_meet(a.from, a.to, b.from, b.to);
}

bool any_meet(const std::vector<Loop>& loops) {
  std::vector<Side> sides;
  for (std::size_t i = 0; i < loops.size(); ++i)
    for (std::size_t corner = 0; corner < loops[i].size(); ++corner)
      sides.push_back(
          {loops[i][corner], loops[i][(corner + 1) % loops[i].size()], i, corner, loops[i].size()});
  for (std::size_t i = 0; i < sides.size(); ++i)
    for (std::size_t other = i + 1; other < sides.size(); ++other)
      if (meet(sides[i], sides[other])) return true;
  return false;
}

}  // namespace

std::int64_t area_of(const Loop& loop) {
  std::int64_t area = 0;
  for (std::size_t i = 1; i + 1 < loop.size(); ++i) area += turn(loop[0], loop[i], loop[i + 1]);
  return area;
}

bool folds(IVec2 a, IVec2 b, IVec2 c) {
  return turn(a, b, c) == 0 && (lines_meet(c, c, a, b) || lines_meet(a, a, b, c));
}

bool lines_meet(IVec2 a, IVec2 b, IVec2 c, IVec2 d) {
  if (std::max(a.x, b.x) < std::min(c.x, d.x) || std::max(c.x, d.x) < std::min(a.x, b.x) ||
      std::max(a.y, b.y) < std::min(c.y, d.y) || std::max(c.y, d.y) < std::min(a.y, b.y))
    return false;
  const auto between = [](std::int64_t one, std::int64_t other) {
    return one == 0 || other == 0 || (one < 0) != (other < 0);
  };
  return between(turn(a, b, c), turn(a, b, d)) && between(turn(c, d, a), turn(c, d, b));
}

// A simpler loop may cross another, or itself: then all are simplified less, and at last not at all.
std::vector<Loop> simplified_borders(const Frame& frame, float error) {
  const std::vector<Loop> borders =
      frame.picture ? BorderFollower(frame).follow_all(error) : std::vector<Loop>();
  double within = static_cast<double>(error) * outline_steps;
  while (true) {
    std::vector<Loop> loops;
    std::size_t corners = 0;
    for (const Loop& border : borders) {
      Loop loop = simplified(border, within);
      if (loop.size() < 3 || (area_of(loop) < 0) != (area_of(border) < 0) || area_of(loop) == 0) continue;
      corners += loop.size();
      loops.push_back(std::move(loop));
    }
    if (corners > most_corners) throw_ragged();
    if (within == 0 || !any_meet(loops)) return loops;
    within = within < 0.25 ? 0 : within / 2;
  }
}

}  // namespace vole
