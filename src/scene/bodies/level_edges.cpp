#include "level_edges.hpp"

#include <algorithm>

#include "scene/tick.hpp"
#include "vole/world/attached.hpp"
#include "vole/world/body.hpp"
#include "vole/world/motion.hpp"
#include "what_holds.hpp"

namespace vole {
namespace {

// By how much a side of a box is moved to have it on the other side of the level: 0 while it crosses no edge.
float other_side(float from, float to, float size) {
  return from < 0 ? size : to > size ? -size : 0;
}

Rect box_of(const Entities& entities, Entity thing, Vec2 at) {
  const Body* const body = entities.find<Body>(thing);
  return body ? body->box(at) : Rect{at, {0, 0}};
}

// Where its middle is outside, by how much it comes in again.
Vec2 way_in(const LevelEdge& edge, Vec2 middle, Vec2 size) {
  const auto part = [](float at, float length) { return at < 0 ? length : at >= length ? -length : 0.0f; };
  return {edge.wraps_across() ? part(middle.x, size.x) : 0, edge.wraps_down() ? part(middle.y, size.y) : 0};
}

// By how much it is moved to be in the level where it is held.
Vec2 way_back(const LevelEdge& edge, const Rect& box, Vec2 size) {
  Vec2 by{0, 0};
  if (edge.sides == AtEdge::hold) {
    if (box.right() > size.x) by.x = size.x - box.right();
    if (box.left() + by.x < 0) by.x = -box.left();
  }
  if (edge.bottom == AtEdge::hold && box.bottom() > size.y) by.y = size.y - box.bottom();
  if (edge.top == AtEdge::hold && box.top() < 0) by.y = -box.top();
  return by;
}

// Whether all of it is outside, on a side that is like this; by default on any.
bool is_out(const LevelEdge& edge, const Rect& box, Vec2 size, bool by_removing) {
  const auto counts = [&](AtEdge side) { return !by_removing || side == AtEdge::removed; };
  return (counts(edge.sides) && (box.right() < 0 || box.left() > size.x)) ||
         (counts(edge.top) && box.bottom() < 0) || (counts(edge.bottom) && box.top() > size.y);
}

void stop(Motion& motion, Vec2 by) {
  if (by.x * motion.velocity.x < 0) motion.velocity.x = motion.remainder.x = 0;
  if (by.y * motion.velocity.y < 0) motion.velocity.y = motion.remainder.y = 0;
}

void shift(Tick& tick, Entity thing, Pose& pose, Vec2 by) {
  pose.at += by;
  if (tick.stage.solids().has(thing)) tick.stage.solids().put(thing, pose.at);
}

// Where it reaches over an edge into a wall on the other side, it stays where it was.
void hold_before_wall(Tick& tick, Entity thing, Pose& pose, const LevelEdge& edge) {
  SolidThings& solids = tick.stage.solids();
  if (!solids.has(thing) || pose.at == pose.before) return;
  const MoveRules rules = solids.rules(thing, tick.stage.categories());
  if (rules.blocked_by == 0) return;
  const QueryFilter asked = what_holds(rules);
  const Rect box = solids.body(thing).bounds();
  for (const Vec2 by : other_sides(&edge, &tick.world.level, box)) {
    if (by == Vec2{0, 0} || !solids.world().any(box.moved_by(by), asked)) continue;
    const Vec2 back = pose.before - pose.at;
    if (Motion* const motion = tick.world.entities.find<Motion>(thing)) stop(*motion, back);
    return shift(tick, thing, pose, back);
  }
}

void keep_in(Tick& tick, Entity thing, LevelEdge& edge, Pose& pose) {
  const Vec2 size(tick.world.level.size());
  Entities& entities = tick.world.entities;
  if (edge.wraps_across() || edge.wraps_down()) hold_before_wall(tick, thing, pose, edge);
  Rect box = box_of(entities, thing, pose.at);
  if (const Vec2 in = way_in(edge, box.at + box.size * 0.5f, size); in != Vec2{0, 0}) {
    // So that it is drawn on its way there, and not on a way through all of the level.
    pose.before += in;
    shift(tick, thing, pose, in);
    box = box.moved_by(in);
  }
  if (const Vec2 back = way_back(edge, box, size); back != Vec2{0, 0}) {
    if (Motion* const motion = entities.find<Motion>(thing)) stop(*motion, back);
    shift(tick, thing, pose, back);
    box = box.moved_by(back);
  }
  const bool was_outside = std::exchange(edge.outside, is_out(edge, box, size, false));
  if (edge.outside && !was_outside && !edge.tells.empty()) tick.stage.tell(edge.tells, thing);
  // Not before its cue was called.
  if (is_out(edge, box, size, true) && (was_outside || edge.tells.empty())) {
    tick.stage.remove(thing);
    tick.bodies_known = false;
  }
}

}  // namespace

OtherSides other_sides(const LevelEdge* edge, const LevelNow* level, const Rect& box) {
  OtherSides others{};
  if (!edge || !level || !*level || level->endless()) return others;
  const Vec2 size(level->size());
  const float across = edge->wraps_across() ? other_side(box.left(), box.right(), size.x) : 0;
  const float down = edge->wraps_down() ? other_side(box.top(), box.bottom(), size.y) : 0;
  others[0] = {across, 0};
  others[1] = {0, down};
  if (across != 0 && down != 0) others[2] = {across, down};
  return others;
}

OtherSides other_sides(const World& world, Entity thing) {
  const Entities& entities = world.entities;
  for (int links = 0; links < most_attached_in_a_row; ++links) {
    const Attached* const attached = entities.find<Attached>(thing);
    if (!attached) break;
    thing = attached->to;
  }
  const LevelEdge* const edge = entities.find<LevelEdge>(thing);
  const Pose* const pose = entities.find<Pose>(thing);
  if (!edge || !pose || (!edge->wraps_across() && !edge->wraps_down())) return {};
  // By as much as a large picture reaches over its feet.
  constexpr float reach = 64;
  return other_sides(edge, &world.level, box_of(entities, thing, pose->at).widened_by(reach));
}

void keep_in_level(Tick& tick) {
  if (!tick.world.level || tick.world.level.endless()) return;
  tick.world.entities.visit<LevelEdge, Pose>([&](Entity thing, LevelEdge& edge, Pose& pose) {
    if (!tick.stage.removed(thing) && tick.goes_on(thing)) keep_in(tick, thing, edge, pose);
  });
}

}  // namespace vole
