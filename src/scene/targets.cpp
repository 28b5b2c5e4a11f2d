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

constexpr float row_height = 64;  // pixels
std::int32_t row_of(float y) {
  constexpr float furthest = 1e9f;
  if (!std::isfinite(y)) return 0;
  return static_cast<std::int32_t>(std::floor(std::clamp(y, -furthest, furthest) / row_height));
}

}  // namespace

const Targets::Rows& Targets::rows(const Stage& stage, const std::string& name) {
  if (const auto found = by_name_.find(name); found != by_name_.end()) return found->second;
  Rows& rows = by_name_[name];
  const Entities& entities = stage.entities;
  entities.visit<KindOf, Pose>([&](Entity thing, const KindOf& kind, const Pose& pose) {
    if (!counts(entities, thing, kind, name)) return;
    const Body* const body = entities.find<Body>(thing);
    const Rect box = body ? body->box(pose.at) : Rect{pose.at, {0, 0}};
    const Vec2 at = box.at + box.size * 0.5f;
    if (std::isfinite(at.x) && std::isfinite(at.y)) rows.all.push_back({row_of(at.y), {thing, at}});
  });
  std::sort(rows.all.begin(), rows.all.end(), [](const Placed& a, const Placed& b) {
    return std::tie(a.row, a.target.at.x, a.target.thing.index) <
           std::tie(b.row, b.target.at.x, b.target.thing.index);
  });
  for (std::size_t i = 0; i < rows.all.size(); ++i)
    if (i == 0 || rows.all[i].row != rows.all[i - 1].row) rows.begins.push_back({rows.all[i].row, i});
  return rows;
}

std::optional<Target> Targets::nearest(const Stage& stage, const std::string& name, Entity asking, Vec2 from,
                                       float within) {
  const Rows& rows = this->rows(stage, name);
  std::optional<Target> best;
  float distance = within;
  const auto consider = [&](const Target& target) {
    const float its = length_of(target.at - from);
    const bool nearer = its < distance || (its == distance && best && target.thing.index < best->thing.index);
    if (target.thing == asking || !nearer) return;
    distance = its;
    best = target;
  };
  // Of each row that is near enough, what is near enough along it.
  const std::int32_t last = row_of(from.y + within);
  auto row = static_cast<std::size_t>(std::lower_bound(rows.begins.begin(), rows.begins.end(),
                                                       std::pair(row_of(from.y - within), std::size_t{0})) -
                                      rows.begins.begin());
  for (; row < rows.begins.size() && rows.begins[row].first <= last; ++row) {
    const auto end = rows.all.begin() + static_cast<std::ptrdiff_t>(rows.end(row));
    auto each = std::lower_bound(rows.all.begin() + static_cast<std::ptrdiff_t>(rows.begins[row].second), end,
                                 from.x - within,
                                 [](const Placed& placed, float x) { return placed.target.at.x < x; });
    for (; each != end && each->target.at.x <= from.x + within; ++each) consider(each->target);
  }
  return best;
}

}  // namespace vole
