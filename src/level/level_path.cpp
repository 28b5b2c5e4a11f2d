#include "vole/level/level_path.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace vole {
namespace {

float distance(Vec2 a, Vec2 b) {
  return length_of(b - a);
}

// Between b and c, `share` of the way.
Vec2 curve(Vec2 a, Vec2 b, Vec2 c, Vec2 d, float share) {
  // Two points on one spot have no time between them: a little, so that nothing is divided by 0.
  const auto time = [](Vec2 from, Vec2 to) { return std::max(std::sqrt(distance(from, to)), 1e-3f); };
  const float t0 = 0, t1 = t0 + time(a, b), t2 = t1 + time(b, c), t3 = t2 + time(c, d);
  const float t = t1 + (t2 - t1) * share;
  const auto between = [t](Vec2 from, Vec2 to, float start, float end) {
    return from * ((end - t) / (end - start)) + to * ((t - start) / (end - start));
  };
  const Vec2 ab = between(a, b, t0, t1), bc = between(b, c, t1, t2), cd = between(c, d, t2, t3);
  return between(between(ab, bc, t0, t2), between(bc, cd, t1, t3), t1, t2);
}

std::vector<Vec2> curved(const std::vector<Vec2>& points, bool closed) {
  constexpr int parts = 16;
  const auto count = static_cast<int>(points.size());
  // Beyond the ends of an open one the first and last part go on straight.
  const auto point = [&](int i) {
    if (closed) return points[static_cast<std::size_t>((i + count) % count)];
    if (i < 0) return points[0] * 2.0f - points[1];
    if (i >= count)
      return points[static_cast<std::size_t>(count - 1)] * 2.0f - points[static_cast<std::size_t>(count - 2)];
    return points[static_cast<std::size_t>(i)];
  };
  std::vector<Vec2> line;
  const int steps = closed ? count : count - 1;
  for (int i = 0; i < steps; ++i)
    for (int part = 0; part < parts; ++part)
      line.push_back(curve(point(i - 1), point(i), point(i + 1), point(i + 2),
                           static_cast<float>(part) / static_cast<float>(parts)));
  line.push_back(point(steps));
  return line;
}

}  // namespace

LevelPath::LevelPath(std::string its_name, const std::vector<Vec2>& points, bool closed, bool is_curved,
                     FilePosition at)
    : name(std::move(its_name)), where(std::move(at)), closed_(closed) {
  if (is_curved && points.size() > 2) {
    line_ = curved(points, closed);
  } else {
    line_ = points;
    if (closed) line_.push_back(points[0]);
  }
  along_.push_back(0);
  for (std::size_t i = 1; i < line_.size(); ++i)
    along_.push_back(along_.back() + distance(line_[i - 1], line_[i]));
}

// The part of the line that a distance lies on, which is brought within its length.
std::size_t LevelPath::part_at(float& distance) const {
  if (!std::isfinite(distance)) distance = 0;
  if (closed_ && length() > 0) {
    distance -= std::floor(distance / length()) * length();
    distance = std::min(distance, length());
  }
  distance = std::clamp(distance, 0.0f, length());
  const auto after = std::upper_bound(along_.begin(), along_.end(), distance);
  const auto last = static_cast<std::ptrdiff_t>(along_.size()) - 2;
  return static_cast<std::size_t>(
      std::clamp<std::ptrdiff_t>(after - along_.begin() - 1, 0, std::max<std::ptrdiff_t>(last, 0)));
}

Vec2 LevelPath::at(float distance) const {
  if (line_.size() < 2) return line_.empty() ? Vec2{0, 0} : line_[0];
  const std::size_t part = part_at(distance);
  const float from = along_[part], size = along_[part + 1] - from;
  return size > 0 ? line_[part] + (line_[part + 1] - line_[part]) * ((distance - from) / size) : line_[part];
}

Vec2 LevelPath::direction(float distance) const {
  if (line_.size() < 2) return {1, 0};
  const std::size_t part = part_at(distance);
  const float size = along_[part + 1] - along_[part];
  return size > 0 ? (line_[part + 1] - line_[part]) / size : Vec2{1, 0};
}

float LevelPath::nearest(Vec2 point) const {
  float best = 0, best_square = INFINITY;
  for (std::size_t i = 0; i + 1 < line_.size(); ++i) {
    const Vec2 from = line_[i], way = line_[i + 1] - from, to_point = point - from;
    const float square_of_way = way.x * way.x + way.y * way.y;
    const float share =
        square_of_way > 0 ? std::clamp((to_point.x * way.x + to_point.y * way.y) / square_of_way, 0.0f, 1.0f)
                          : 0.0f;
    const Vec2 off = to_point - way * share;
    const float square = off.x * off.x + off.y * off.y;
    if (!(square < best_square)) continue;
    best_square = square;
    best = along_[i] + (along_[i + 1] - along_[i]) * share;
  }
  return best;
}

LevelPath LevelPath::moved_by(Vec2 by) const {
  LevelPath moved = *this;
  for (Vec2& point : moved.line_) point += by;
  return moved;
}

}  // namespace vole
