#include "row_pushing.hpp"

#include <algorithm>
#include <limits>

#include "scene/bodies/what_holds.hpp"
#include "vole/scene/bodies/solid_things.hpp"
#include "vole/world/entities.hpp"
#include "vole/world/pushable.hpp"

namespace vole {
namespace {

// All that a box passes on its way along an axis.
Rect passed(const Rect& box, Vec2 by) {
  return box.joined_with(box.moved_by(by));
}

bool has(const RowPushing::Row& row, Entity thing) {
  return std::find(row.begin(), row.end(), thing) != row.end();
}

}  // namespace

bool RowPushing::add_what_meets(const CollisionBody& body, Vec2 by, const MoveRules& rules, BodyId pusher,
                                Row& row, int most) const {
  std::vector<BodyOrCell> found;
  solids_.world().find(passed(body.bounds(), by), what_holds(rules), found);
  for (const BodyOrCell& each : found) {
    if (each.body == no_body) return false;
    const Entity thing = solids_.thing(each.body);
    if (each.body == pusher || has(row, thing)) continue;
    const Pushable* const pushable = entities_.find<Pushable>(thing);
    if (!pushable || pushable->speed <= 0 || row.size() >= static_cast<std::size_t>(most)) return false;
    row.push_back(thing);
  }
  return true;
}

std::optional<RowPushing::Row> RowPushing::before(const CollisionBody& body, Vec2 by, const MoveRules& rules,
                                                  int most) const {
  Row row;
  if (!add_what_meets(body, by, rules, rules.self, row, most)) return std::nullopt;
  for (std::size_t i = 0; i < row.size(); ++i)
    if (!add_what_meets(solids_.body(row[i]), by, solids_.rules(row[i], categories_), rules.self, row, most))
      return std::nullopt;
  return row;
}

float RowPushing::speed(const Row& row) const {
  float least = std::numeric_limits<float>::infinity();
  for (const Entity thing : row)
    if (const Pushable* const pushable = entities_.find<Pushable>(thing))
      least = std::min(least, pushable->speed);
  return least;
}

bool RowPushing::is_ahead(const Row& row, Vec2 from, Vec2 way) const {
  return std::any_of(row.begin(), row.end(), [&](Entity thing) {
    if (!solids_.has(thing)) return false;
    const Rect bounds = solids_.body(thing).bounds();
    const Vec2 there = bounds.at + bounds.size * 0.5f - from;
    return there.x * way.x + there.y * way.y > 0;
  });
}

bool RowPushing::has_room(Entity thing, Vec2 by, const Row& row, BodyId pusher) const {
  std::vector<BodyOrCell> found;
  solids_.world().find(passed(solids_.body(thing).bounds(), by),
                       what_holds(solids_.rules(thing, categories_)), found);
  return std::all_of(found.begin(), found.end(), [&](const BodyOrCell& each) {
    return each.body != no_body && (each.body == pusher || has(row, solids_.thing(each.body)));
  });
}

bool RowPushing::move(const Row& row, Vec2 by, const MoveRules& rules) {
  const auto is_there = [this](Entity thing) { return entities_.has<Pose>(thing) && solids_.has(thing); };
  for (const Entity thing : row)
    if (is_there(thing) && !has_room(thing, by, row, rules.self)) return false;
  for (const Entity thing : row) {
    if (!is_there(thing)) continue;
    Pose& pose = entities_.get<Pose>(thing);
    pose.at += by;
    solids_.put(thing, pose.at);
  }
  return true;
}

}  // namespace vole
