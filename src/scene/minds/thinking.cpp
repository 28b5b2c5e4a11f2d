#include "thinking.hpp"

#include <cmath>

#include "scene/bodies/what_holds.hpp"
#include "scene/facts.hpp"
#include "scene/movers/lanes.hpp"
#include "vole/world/conditions.hpp"

namespace vole {
namespace {

// Over its time, or in it: once in so many seconds, at their end, for so long.
bool is_time(const Thinker& thinker, const MindPart& part) {
  if (part.every <= 0) return true;
  const std::int64_t every = std::max<std::int64_t>(thinker.in_ticks(part.every), 1);
  const std::int64_t length = part.deed().presses ? 1 : thinker.in_ticks(part.seconds);
  return thinker.mind.ticks % every >= every - std::min(length, every);
}

bool conditions_hold(const Thinker& thinker, std::size_t part) {
  const Conditions& conditions = *thinker.mind.conditions;
  const std::vector<ClipRules::Condition>& when = conditions.when(part);
  if (when.empty()) return true;
  const OwnFacts own = own_facts(thinker.tick, thinker.thing);
  return std::all_of(when.begin(), when.end(), [&](const ClipRules::Condition& condition) {
    return condition.holds(fact_of(thinker.tick, thinker.thing, own, conditions.facts()[condition.fact]));
  });
}

// Whether nothing that would hold it is between.
bool sees(const Thinker& thinker, const Target& target) {
  const SolidThings& solids = thinker.tick.stage.solids();
  const QueryFilter asked = what_holds(thinker.rules);
  const Vec2 eye = thinker.middle();
  const auto hit = solids.world().cast_ray(eye, target.at - eye, asked);
  return !hit || solids.thing(hit->what.body) == target.thing;
}

// Where it is, or was when it was last seen.
std::optional<Vec2> find_goal(Thinker& thinker, const MindPart& part) {
  Mind& mind = thinker.mind;
  const auto target = thinker.tick.memory.targets.nearest(thinker.tick.stage, part.of.value, thinker.thing,
                                                          thinker.middle(), part.within);
  if (target && (!part.seen || sees(thinker, *target))) {
    mind.last_seen = target->at;
    mind.since_seen = 0;
    return target->at;
  }
  constexpr float there = 4;
  if (mind.since_seen < 0 || mind.since_seen > thinker.in_ticks(part.remembers)) return std::nullopt;
  if (part.remembers <= 0 || length_of(mind.last_seen - thinker.middle()) < there) return std::nullopt;
  return mind.last_seen;
}

bool applies(Thinker& thinker, std::size_t index, std::optional<Vec2>& goal) {
  const MindPart& part = thinker.mind.parts[index].value;
  goal.reset();
  if (!is_time(thinker, part) || !conditions_hold(thinker, index)) return false;
  if (!part.deed().about_a_thing) return true;
  goal = find_goal(thinker, part);
  return goal.has_value();
}

// It has begun, and its time is not over.
bool goes_on(Thinker& thinker, std::optional<Vec2>& goal) {
  const MindPart* const part = thinker.mind.deciding();
  if (!part || thinker.mind.part_ticks >= thinker.in_ticks(part->hold)) return false;
  if (!part->deed().about_a_thing) return true;
  goal = find_goal(thinker, *part);
  return goal.has_value();
}

// Whether it may have been on another path than that of this part.
bool has_other_path(const Mind& mind, std::size_t part) {
  const std::string& path = mind.parts[part].value.path.value;
  return !path.empty() && std::any_of(mind.parts.begin(), mind.parts.end(), [&path](const auto& other) {
    return !other.value.path.value.empty() && other.value.path.value != path;
  });
}

}  // namespace

Vec2 Thinker::middle() const {
  return body ? pose.at + middle_of(*body) : pose.at;
}

std::int64_t Thinker::in_ticks(float seconds) const {
  return std::llround(static_cast<double>(seconds) * tick.setting.ticks_per_second);
}

const MindPart* choose_part(Thinker& thinker, std::optional<Vec2>& goal) {
  Mind& mind = thinker.mind;
  ++mind.part_ticks;
  if (goes_on(thinker, goal)) return mind.deciding();
  for (std::size_t i = 0; i < mind.parts.size(); ++i) {
    if (!applies(thinker, i, goal)) continue;
    if (mind.part != static_cast<int>(i)) {
      mind.part = static_cast<int>(i);
      mind.part_ticks = 0;
      // What it did when it last decided is long past.
      mind.way_ticks = 0;
      mind.over_ledges.crossing = CrossingKind::none;
      if (has_other_path(mind, i)) {
        mind.along = -1;
        mind.goes_back = false;
      }
    }
    return mind.deciding();
  }
  mind.part = -1;
  return nullptr;
}

Intent think(Tick& tick, Entity thing, Mind& mind, const Intent& before) {
  const SolidThings& solids = tick.stage.solids();
  const bool has_body = solids.has(thing);
  Thinker thinker{tick, thing, mind, tick.world.entities.get<Pose>(thing),
                  has_body ? &solids.body(thing) : nullptr};
  thinker.rules.self = thing.index;
  if (has_body) thinker.rules = solids.rules(thing, tick.stage.categories());
  read_conditions(mind);
  if (!mind.has_chance) {
    mind.chance = Random(tick.world.random.next_wide());
    mind.has_chance = true;
  }
  if (mind.since_seen >= 0) ++mind.since_seen;
  std::optional<Vec2> goal;
  const MindPart* const part = choose_part(thinker, goal);
  Intent intent;
  if (part && part->deed().presses) {
    intent.direction = before.direction;
    intent.act_pressed = intent.act_held = true;
  } else if (part) {
    intent = intent_of(thinker, *part, goal.value_or(thinker.middle()));
  }
  ++mind.ticks;
  return intent;
}

}  // namespace vole
