#include "targets.hpp"

#include <algorithm>
#include <cmath>
#include <tuple>

namespace vole {
namespace {

bool counts(const Entities& entities, Entity thing, const KindOf& kind, const std::string& name) {
  if (entities.removed(thing)) return false;
  if (kind.name == name) return true;
  const Tags* const tags = entities.find<Tags>(thing);
  return tags && tags->has(name);
}

// They are kept in rows of so many pixels, each from left to right.
constexpr float row_height = 64;
std::int64_t row_of(float y) {
  constexpr float furthest = 1e9f;
  return std::isfinite(y)
             ? static_cast<std::int64_t>(std::floor(std::clamp(y, -furthest, furthest) / row_height))
             : 0;
}

}  // namespace

const std::vector<Target>& Targets::all(const Stage& stage, const std::string& name) {
  if (const auto found = by_name_.find(name); found != by_name_.end()) return found->second;
  std::vector<Target>& targets = by_name_[name];
  const Entities& entities = stage.entities;
  entities.visit<KindOf, Pose>([&](Entity thing, const KindOf& kind, const Pose& pose) {
    if (!counts(entities, thing, kind, name)) return;
    const Body* const body = entities.find<Body>(thing);
    const Rect box = body ? body->box(pose.at) : Rect{pose.at, {0, 0}};
    targets.push_back({thing, box.at + box.size * 0.5f});
  });
  std::sort(targets.begin(), targets.end(), [](const Target& a, const Target& b) {
    return std::tuple(row_of(a.at.y), a.at.x, a.thing.index) <
           std::tuple(row_of(b.at.y), b.at.x, b.thing.index);
  });
  return targets;
}

std::optional<Target> Targets::nearest(const Stage& stage, const std::string& name, Entity asking, Vec2 from,
                                       float within) {
  const std::vector<Target>& targets = all(stage, name);
  std::optional<Target> best;
  float distance = within;
  const auto consider = [&](const Target& target) {
    const float its = length_of(target.at - from);
    const bool nearer = its < distance || (its == distance && best && target.thing.index < best->thing.index);
    if (target.thing == asking || !nearer) return;
    distance = its;
    best = target;
  };
  if (targets.empty()) return best;
  // Of each row that is near enough, what is near enough along it.
  const std::int64_t first = std::max(row_of(from.y - within), row_of(targets.front().at.y));
  const std::int64_t last = std::min(row_of(from.y + within), row_of(targets.back().at.y));
  for (std::int64_t row = first; row <= last; ++row) {
    auto each = std::lower_bound(targets.begin(), targets.end(), std::tuple(row, from.x - within),
                                 [](const Target& target, const std::tuple<std::int64_t, float>& wanted) {
                                   return std::tuple(row_of(target.at.y), target.at.x) < wanted;
                                 });
    for (; each != targets.end() && row_of(each->at.y) == row && each->at.x <= from.x + within; ++each)
      consider(*each);
  }
  return best;
}

}  // namespace vole
