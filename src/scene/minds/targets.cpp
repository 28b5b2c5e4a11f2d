#include "targets.hpp"

#include <algorithm>
#include <cmath>

#include "vole/level/kinds.hpp"

namespace vole {
namespace {

bool counts(const Entities& entities, Entity thing, const KindOf& kind, const MeantThings& meant) {
  if (entities.removed(thing)) return false;
  if (!meant.by_tag) return kind.name == meant.name;
  const Tags* const tags = entities.find<Tags>(thing);
  return tags && tags->has(meant.name);
}

constexpr float row_height = 64;  // pixels
std::int64_t row_of(float y) {
  constexpr float furthest = 1e9f;
  if (!std::isfinite(y)) return 0;
  return static_cast<std::int64_t>(std::floor(std::clamp(y, -furthest, furthest) / row_height));
}

}  // namespace

// What is very far down shares the last row.
std::int64_t Targets::Rows::place(float y) const {
  constexpr std::int64_t most_rows = 4096;
  return std::min(row_of(y) - first, most_rows - 1);
}

void Targets::Rows::put(const std::vector<Target>& found) {
  first = 0;
  for (const Target& target : found)
    first = &target == found.data() ? row_of(target.at.y) : std::min(first, row_of(target.at.y));
  begins.assign(1, 0);
  for (const Target& target : found) {
    const auto row = static_cast<std::size_t>(place(target.at.y));
    if (row + 2 > begins.size()) begins.resize(row + 2);
    ++begins[row + 1];
  }
  for (std::size_t row = 1; row < begins.size(); ++row) begins[row] += begins[row - 1];
  all.resize(found.size());
  std::vector<std::size_t> next = begins;
  for (const Target& target : found) all[next[static_cast<std::size_t>(place(target.at.y))]++] = target;
  for (std::size_t row = 0; row + 1 < begins.size(); ++row)
    std::sort(all.begin() + static_cast<std::ptrdiff_t>(begins[row]),
              all.begin() + static_cast<std::ptrdiff_t>(begins[row + 1]),
              [](const Target& a, const Target& b) { return a.at.x < b.at.x; });
}

const Targets::Rows& Targets::rows(const Stage& stage, const std::string& name) {
  if (const auto known = by_name_.find(name); known != by_name_.end()) return known->second;
  found_.clear();
  const Entities& entities = stage.entities();
  const MeantThings meant = meant_things(name);
  entities.visit<KindOf, Pose>([&](Entity thing, const KindOf& kind, const Pose& pose) {
    if (!counts(entities, thing, kind, meant)) return;
    const Body* const body = entities.find<Body>(thing);
    const Rect box = body ? body->box(pose.at) : Rect{pose.at, {0, 0}};
    const Vec2 at = box.at + box.size * 0.5f;
    if (std::isfinite(at.x) && std::isfinite(at.y)) found_.push_back({thing, at});
  });
  Rows& rows = by_name_[name];
  rows.put(found_);
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
  const std::int64_t last =
      std::min(rows.place(from.y + within), static_cast<std::int64_t>(rows.begins.size()) - 2);
  for (std::int64_t row = std::max<std::int64_t>(rows.place(from.y - within), 0); row <= last; ++row) {
    const auto begin =
        rows.all.begin() + static_cast<std::ptrdiff_t>(rows.begins[static_cast<std::size_t>(row)]);
    const auto end =
        rows.all.begin() + static_cast<std::ptrdiff_t>(rows.begins[static_cast<std::size_t>(row) + 1]);
    auto each = std::lower_bound(begin, end, from.x - within,
                                 [](const Target& target, float x) { return target.at.x < x; });
    for (; each != end && each->at.x <= from.x + within; ++each) consider(*each);
  }
  return best;
}

}  // namespace vole
