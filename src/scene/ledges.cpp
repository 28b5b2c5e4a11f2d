#include "ledges.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>

#include "what_holds.hpp"

namespace vole {

// Down through the column: wherever there is room for the body, it falls to the next ground.
std::vector<Vec2> LedgeSeeker::spots_in_column(float x) const {
  std::vector<Vec2> spots;
  const Vec2 size(level.size());
  const float step = static_cast<float>(std::min(level.tile_size().y, 8)) / 2;
  CollisionBody at = body;
  const Asked asked = what_holds(rules);
  MoveRules straight = rules;
  straight.steepest = steepest;
  float y = 0;
  while (y < size.y) {
    at.at = {x, y};
    // What only touches is not in it.
    const Rect box = at.bounds();
    if (world.any({box.at + Vec2{0.01f, 0.01f}, box.size - Vec2{0.02f, 0.02f}}, asked)) {
      y += step;
      continue;
    }
    const BodyMoved down = world.slide(at, {0, size.y - y}, straight);
    if (!down.below.any) break;
    if (std::abs(down.at.x - x) < 0.5f && down.at.y < size.y) spots.push_back({x, down.at.y});
    y = std::max(down.at.y, y) + step;
  }
  return spots;
}

std::vector<Ledge> LedgeSeeker::ledges(float apart) const {
  std::vector<Ledge> ledges;
  // The places in that list of the ledges that end in the column before.
  std::vector<std::size_t> open;
  for (float x = apart / 2; x < static_cast<float>(level.size().x); x += apart) {
    std::vector<std::size_t> now;
    for (const Vec2 spot : spots_in_column(x)) {
      const auto goes_on = std::find_if(open.begin(), open.end(), [&](std::size_t ledge) {
        return std::abs(ledges[ledge].spots.back().y - spot.y) <= apart * 1.25f &&
               ledges[ledge].spots.back().x < x;
      });
      if (goes_on == open.end()) {
        now.push_back(ledges.size());
        ledges.push_back({{spot}, false, {}});
      } else {
        ledges[*goes_on].spots.push_back(spot);
        now.push_back(*goes_on);
      }
    }
    open = now;
  }
  std::stable_sort(ledges.begin(), ledges.end(), [](const Ledge& a, const Ledge& b) {
    return std::tie(a.spots[0].y, a.spots[0].x) < std::tie(b.spots[0].y, b.spots[0].x);
  });
  return ledges;
}

}  // namespace vole
