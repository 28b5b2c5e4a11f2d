#include "vole/asset/outline.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <map>
#include <utility>

#include "outline_border.hpp"
#include "vole/base/error.hpp"
#include "vole/base/within.hpp"

namespace vole {
namespace {

std::int64_t square_of_distance(IVec2 a, IVec2 b) {
  const std::int64_t x = std::int64_t{a.x} - b.x, y = std::int64_t{a.y} - b.y;
  return x * x + y * y;
}

// A loop is inside another when one of its corners is: they do not cross.
bool is_inside(IVec2 point, const Loop& loop) {
  bool inside = false;
  for (std::size_t i = 0; i < loop.size(); ++i) {
    const IVec2 from = loop[i], to = loop[(i + 1) % loop.size()];
    if ((from.y > point.y) == (to.y > point.y)) continue;
    if ((turn(from, to, point) > 0) == (to.y > from.y)) inside = !inside;
  }
  return inside;
}

// The smallest island around a hole, by its place; none: the number of loops.
std::size_t island_of(const Loop& hole, const std::vector<Loop>& loops) {
  std::size_t own = loops.size();
  for (std::size_t i = 0; i < loops.size(); ++i)
    if (area_of(loops[i]) > 0 && is_inside(hole[0], loops[i]) &&
        (own == loops.size() || area_of(loops[i]) < area_of(loops[own])))
      own = i;
  return own;
}

// An outer border with its holes becomes one loop, with bridges that are gone over and back.
class Bridges {
 public:
  Bridges(Loop outer, std::vector<Loop> holes) : loop_(std::move(outer)), holes_(std::move(holes)) {}

  Loop build() {
    while (!holes_.empty()) add_nearest();
    return loop_;
  }

 private:
  struct Bridge {
    std::int64_t length;
    std::size_t corner, hole, hole_corner;
  };

  // The shortest that nothing is in the way of: from what is done so far there always is one.
  void add_nearest() {
    Bridge best{std::numeric_limits<std::int64_t>::max(), 0, 0, 0};
    for (std::size_t hole = 0; hole < holes_.size(); ++hole)
      for (std::size_t there = 0; there < holes_[hole].size(); ++there)
        for (std::size_t here = 0; here < loop_.size(); ++here) {
          const Bridge bridge{square_of_distance(loop_[here], holes_[hole][there]), here, hole, there};
          if (bridge.length < best.length && is_free(bridge)) best = bridge;
        }
    add(best);
  }

  bool is_free(const Bridge& bridge) const {
    const IVec2 from = loop_[bridge.corner], to = holes_[bridge.hole][bridge.hole_corner];
    const auto crosses = [&](const Loop& loop) {
      for (std::size_t i = 0; i < loop.size(); ++i) {
        const IVec2 a = loop[i], b = loop[(i + 1) % loop.size()];
        if (a == from || b == from || a == to || b == to) {
          // It may begin there, but not go along it.
          const IVec2 end = a == from || a == to ? b : a;
          if (turn(from, to, end) == 0 && lines_meet(end, end, from, to)) return true;
        } else if (lines_meet(from, to, a, b)) {
          return true;
        }
      }
      return false;
    };
    return begins_inside(bridge.corner, to) && !crosses(loop_) &&
           std::none_of(holes_.begin(), holes_.end(), crosses);
  }

  // At a corner where bridges begin the loop passes several times: it has to be the pass that looks that way.
  bool begins_inside(std::size_t corner, IVec2 to) const {
    const IVec2 before = loop_[(corner + loop_.size() - 1) % loop_.size()], at = loop_[corner],
                after = loop_[(corner + 1) % loop_.size()];
    const bool right_of_first = turn(before, at, to) > 0, right_of_second = turn(at, after, to) > 0;
    return turn(before, at, after) > 0 ? right_of_first && right_of_second
                                       : right_of_first || right_of_second;
  }

  void add(const Bridge& bridge) {
    Loop hole = holes_[bridge.hole];
    std::rotate(hole.begin(), hole.begin() + static_cast<std::ptrdiff_t>(bridge.hole_corner), hole.end());
    hole.push_back(hole.front());
    hole.push_back(loop_[bridge.corner]);
    loop_.insert(loop_.begin() + static_cast<std::ptrdiff_t>(bridge.corner) + 1, hole.begin(), hole.end());
    holes_.erase(holes_.begin() + static_cast<std::ptrdiff_t>(bridge.hole));
  }

  Loop loop_;
  std::vector<Loop> holes_;
};

bool is_in_triangle(IVec2 point, IVec2 a, IVec2 b, IVec2 c) {
  return turn(a, b, point) >= 0 && turn(b, c, point) >= 0 && turn(c, a, point) >= 0;
}

// Cuts a loop into triangles by cutting off ears. Whatever the order, they go around each point as often as the loop does:
// so as long as each has an area above 0, they neither overlap nor leave anything out.
class EarCutting {
 public:
  explicit EarCutting(const Loop& loop) : whole_(loop) {}

  // Where bridges make an ear of what is none, no ear is left at last: then it is begun elsewhere.
  std::vector<Loop> build() {
    constexpr std::size_t most_starts = 16;
    for (std::size_t start = 0; start < std::min(whole_.size(), most_starts); ++start)
      if (cut_from(start)) return std::move(triangles_);
    throw Error(FilePosition{}, "the outline cannot be cut into parts", "another \"error\" may do");
  }

 private:
  // Of a corner, what has to be outside of its triangle: all others; all in other places; none.
  enum class Care { all, others, none };

  bool cut_from(std::size_t at) {
    loop_ = whole_;
    triangles_.clear();
    while (loop_.size() > 2) {
      const std::size_t ear = find(at);
      if (ear == loop_.size()) return false;
      if (!is_flat(ear)) triangles_.push_back({before(ear), loop_[ear], after(ear)});
      loop_.erase(loop_.begin() + static_cast<std::ptrdiff_t>(ear));
      // Not the next one, which would make a fan of slivers.
      at = ear + 1;
    }
    return true;
  }

  std::size_t find(std::size_t from) const {
    for (const Care care : {Care::all, Care::others, Care::none})
      for (std::size_t i = 0; i < loop_.size(); ++i) {
        const std::size_t corner = (from + i) % loop_.size();
        if (is_flat(corner) || is_ear(corner, care)) return corner;
      }
    return loop_.size();
  }

  IVec2 before(std::size_t i) const { return loop_[(i + loop_.size() - 1) % loop_.size()]; }
  IVec2 after(std::size_t i) const { return loop_[(i + 1) % loop_.size()]; }
  bool is_flat(std::size_t i) const { return turn(before(i), loop_[i], after(i)) == 0; }

  bool is_ear(std::size_t i, Care care) const {
    const IVec2 a = before(i), b = loop_[i], c = after(i);
    if (turn(a, b, c) <= 0) return false;
    if (care == Care::none) return true;
    for (std::size_t k = 2; k + 1 < loop_.size(); ++k) {
      const std::size_t other = (i + k) % loop_.size();
      const IVec2 point = loop_[other];
      if (!is_in_triangle(point, a, b, c) || turn(before(other), point, after(other)) > 0) continue;
      if (care == Care::all || (point != a && point != b && point != c)) return false;
    }
    return true;
  }

  Loop whole_, loop_;
  std::vector<Loop> triangles_;
};

// Joins convex polygons along the sides they share.
class Joining {
 public:
  explicit Joining(std::vector<Loop> polygons) : polygons_(std::move(polygons)) {
    for (std::size_t i = 0; i < polygons_.size(); ++i) note_sides(i);
  }

  std::vector<Loop> build() {
    for (std::size_t i = 0; i < polygons_.size(); ++i)
      while (join_one_side(i)) {
      }
    std::erase_if(polygons_, [](const Loop& polygon) { return polygon.empty(); });
    return std::move(polygons_);
  }

 private:
  using Line = std::array<int, 4>;
  static Line line(IVec2 from, IVec2 to) { return {from.x, from.y, to.x, to.y}; }

  void note_sides(std::size_t of) {
    const Loop& polygon = polygons_[of];
    for (std::size_t i = 0; i < polygon.size(); ++i)
      sides_[line(polygon[i], polygon[(i + 1) % polygon.size()])] = of;
  }

  bool join_one_side(std::size_t of) {
    for (std::size_t i = 0; i < polygons_[of].size(); ++i) {
      const IVec2 from = polygons_[of][i], to = polygons_[of][(i + 1) % polygons_[of].size()];
      const auto beside = sides_.find(line(to, from));
      if (beside == sides_.end() || beside->second == of) continue;
      const std::size_t other = beside->second;
      Loop joined = polygons_[of];
      std::rotate(joined.begin(), joined.begin() + static_cast<std::ptrdiff_t>((i + 1) % joined.size()),
                  joined.end());
      Loop more = polygons_[other];
      std::rotate(more.begin(), std::find(more.begin(), more.end(), from), more.end());
      joined.insert(joined.end(), more.begin() + 1, more.end() - 1);
      if (!will_do(joined)) continue;
      polygons_[other].clear();
      polygons_[of] = std::move(joined);
      note_sides(of);
      return true;
    }
    return false;
  }

  // Convex, though perhaps with corners in line, and not of too many corners.
  static bool will_do(const Loop& polygon) {
    std::size_t corners = 0;
    for (std::size_t i = 0; i < polygon.size(); ++i) {
      const IVec2 a = polygon[i], b = polygon[(i + 1) % polygon.size()],
                  c = polygon[(i + 2) % polygon.size()];
      const std::int64_t turned = turn(a, b, c);
      if (turned < 0 || folds(a, b, c)) return false;
      corners += turned > 0;
    }
    return corners <= most_part_corners;
  }

  std::vector<Loop> polygons_;
  std::map<Line, std::size_t> sides_;
};

// In pixels, without the corners that lie in line.
std::vector<Vec2> in_pixels(const Loop& polygon) {
  std::vector<Vec2> corners;
  for (std::size_t i = 0; i < polygon.size(); ++i) {
    const IVec2 a = polygon[(i + polygon.size() - 1) % polygon.size()], b = polygon[i],
                c = polygon[(i + 1) % polygon.size()];
    if (turn(a, b, c) != 0) corners.push_back(Vec2(b) / static_cast<float>(outline_steps));
  }
  return corners;
}

// Whether two of its sides that are no neighbours touch, or two that are go back on each other.
bool touches_itself(const Loop& loop) {
  const std::size_t count = loop.size();
  for (std::size_t i = 0; i < count; ++i) {
    const IVec2 from = loop[i], to = loop[(i + 1) % count];
    if (folds(from, to, loop[(i + 2) % count])) return true;
    for (std::size_t j = i + 2; j < count; ++j)
      if ((j + 1) % count != i && lines_meet(from, to, loop[j], loop[(j + 1) % count])) return true;
  }
  return false;
}

}  // namespace

OutlineParts cut_polygon(const std::vector<Vec2>& corners) {
  Loop loop;
  for (const Vec2 corner : corners) {
    const auto step = [](float pixels) { return floor_to_int(pixels * outline_steps + 0.5f); };
    const IVec2 at{step(corner.x), step(corner.y)};
    if (loop.empty() || at != loop.back()) loop.push_back(at);
  }
  if (loop.size() > 1 && loop.front() == loop.back()) loop.pop_back();
  if (loop.size() < 3 || corners.size() > 1000)
    throw Error(FilePosition{}, "a polygon has 3 to 1,000 corners");
  const bool touches = touches_itself(loop);
  if (touches || area_of(loop) == 0)
    throw Error(
        FilePosition{},
        touches ? "the sides of this polygon touch or cross each other" : "nothing is inside this polygon",
        "name its corners one after the other, around it");
  if (area_of(loop) < 0) std::reverse(loop.begin(), loop.end());
  OutlineParts parts;
  for (const Loop& polygon : Joining(EarCutting(std::move(loop)).build()).build())
    parts.push_back(in_pixels(polygon));
  return parts;
}

OutlineParts cut_outline(const Frame& frame, float error) {
  const std::vector<Loop> loops = simplified_borders(frame, std::max(error, least_outline_error));
  std::vector<std::vector<Loop>> holes(loops.size());  // of each border from outside
  for (const Loop& hole : loops) {
    if (area_of(hole) > 0) continue;
    if (const std::size_t own = island_of(hole, loops); own < loops.size()) holes[own].push_back(hole);
  }
  OutlineParts parts;
  for (std::size_t i = 0; i < loops.size(); ++i) {
    if (area_of(loops[i]) < 0) continue;
    for (const Loop& polygon :
         Joining(EarCutting(Bridges(loops[i], std::move(holes[i])).build()).build()).build())
      parts.push_back(in_pixels(polygon));
  }
  if (parts.empty())
    throw Error(FilePosition{}, "nothing in the picture is opaque and larger than the error",
                "a smaller \"error\" keeps more");
  return parts;
}

}  // namespace vole
