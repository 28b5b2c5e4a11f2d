#include "ledges.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>

#include "scene/bodies/what_holds.hpp"

namespace vole {

LedgeSeeker::LedgeSeeker(float steepest, float apart) : steepest_(steepest), apart_(apart), x_(apart) {}

// Down through the column: wherever there is room for the body, it falls to the next ground.
std::vector<Vec2> LedgeSeeker::spots_in_column(const SidePlay& play, float x) const {
  std::vector<Vec2> spots;
  const Vec2 size(play.level.size());
  const float step = static_cast<float>(std::min(play.level.tile_size().y, 8)) / 2;
  CollisionBody at = play.body;
  const QueryFilter asked = what_holds(play.rules);
  MoveRules straight = play.rules;
  straight.steepest = steepest_;
  float y = 0;
  while (y < size.y) {
    at.at = {x, y};
    // What only touches is not in it.
    const Rect box = at.bounds();
    if (play.world.any({box.at + Vec2{0.01f, 0.01f}, box.size - Vec2{0.02f, 0.02f}}, asked)) {
      y += step;
      continue;
    }
    const BodyMoved down = play.world.slide(at, {0, size.y - y}, straight);
    if (!down.below.any) break;
    if (std::abs(down.at.x - x) < 0.5f && down.at.y < size.y) spots.push_back({x, down.at.y});
    y = std::max(down.at.y, y) + step;
  }
  return spots;
}

bool LedgeSeeker::look_at_next_column(const SidePlay& play) {
  if (x_ >= static_cast<float>(play.level.size().x)) return false;
  std::vector<std::size_t> now;
  for (const Vec2 spot : spots_in_column(play, x_)) {
    const auto goes_on = std::find_if(open_.begin(), open_.end(), [&](std::size_t ledge) {
      return std::abs(ledges_[ledge].spots.back().y - spot.y) <= apart_ * 1.25f &&
             ledges_[ledge].spots.back().x < x_;
    });
    if (goes_on == open_.end()) {
      now.push_back(ledges_.size());
      ledges_.push_back({{spot}, false, {}});
    } else {
      ledges_[*goes_on].spots.push_back(spot);
      now.push_back(*goes_on);
    }
  }
  spots_ += now.size();
  open_ = now;
  x_ += apart_;
  return true;
}

std::vector<Ledge> LedgeSeeker::take_ledges() {
  std::stable_sort(ledges_.begin(), ledges_.end(), [](const Ledge& a, const Ledge& b) {
    return std::tie(a.spots[0].y, a.spots[0].x) < std::tie(b.spots[0].y, b.spots[0].x);
  });
  return std::move(ledges_);
}

}  // namespace vole
