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
    return std::tie(a.at.x, a.thing.index) < std::tie(b.at.x, b.thing.index);
  });
  return targets;
}

std::optional<Target> Targets::nearest(const Stage& stage, const std::string& name, Entity asking, Vec2 from,
                                       float within) {
  const std::vector<Target>& targets = all(stage, name);
  std::optional<Target> best;
  float distance = within;
  // Outwards from its own place, as long as what lies further along x could still be nearer.
  const auto consider = [&](const Target& target) {
    if (std::abs(target.at.x - from.x) > distance) return false;
    const float its = length_of(target.at - from);
    const bool nearer = its < distance || (its == distance && best && target.thing.index < best->thing.index);
    if (target.thing != asking && nearer) {
      distance = its;
      best = target;
    }
    return true;
  };
  const auto middle = std::lower_bound(targets.begin(), targets.end(), from.x,
                                       [](const Target& target, float x) { return target.at.x < x; });
  for (auto each = middle; each != targets.end() && consider(*each); ++each) {
  }
  for (auto each = middle; each != targets.begin() && consider(*std::prev(each)); --each) {
  }
  return best;
}

}  // namespace vole
