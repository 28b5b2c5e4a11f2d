#include "pushing.hpp"

#include <algorithm>
#include <cmath>

#include "carrying.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/world/grid_mover.hpp"
#include "vole/world/pushable.hpp"
#include "vole/world/side_mover.hpp"

namespace vole {
namespace {

// The way that is pushed the most, where something is in it; along the ground alone for what falls.
Vec2 held_way(const MoverTurn& turn, bool falls) {
  const Vec2 pushed = turn.intent.direction;
  const Touching& touching = turn.touching;
  if (std::abs(pushed.x) >= std::abs(pushed.y) || falls) {
    if (falls && !touching.ground) return {0, 0};
    if (pushed.x < 0 && touching.wall_left) return {-1, 0};
    if (pushed.x > 0 && touching.wall_right) return {1, 0};
    return {0, 0};
  }
  if (pushed.y < 0 && touching.ceiling) return {0, -1};
  if (pushed.y > 0 && touching.ground) return {0, 1};
  return {0, 0};
}

// Straight on or not at all, with what stands on it: how far it went.
Vec2 push(Tick& tick, Entity pushed, Vec2 by) {
  SolidThings& solids = tick.stage.solids();
  Pose& its = tick.world.entities.get<Pose>(pushed);
  Carrying carrying(tick);
  carrying.before_move(pushed);
  const MoveRules rules = solids.rules(pushed, tick.stage.categories());
  Vec2 gone = solids.world().slide(solids.body(pushed), by, rules).at - its.at;
  if (by.x == 0) gone.x = 0;
  if (by.y == 0) gone.y = 0;
  if (!carrying.after_move(pushed, gone)) return {0, 0};
  its.at += gone;
  solids.put(pushed, its.at);
  return gone;
}

}  // namespace

void push_on(Tick& tick, Entity thing, MoverTurn& turn) {
  Entities& entities = tick.world.entities;
  // What goes on lanes pushes from cell to cell: see grid_motion.cpp.
  if (!entities.any<Pushable>() || entities.has<GridMover>(thing)) return;
  const Vec2 way = held_way(turn, entities.has<SideMover>(thing));
  if (way == Vec2{0, 0}) return;
  SolidThings& solids = tick.stage.solids();
  CollisionBody body = turn.moving.body;
  body.at = turn.pose.at;
  const auto hit = solids.world().would_hit(body, way, turn.moving.rules);
  const Entity pushed = hit ? solids.thing(hit->what.body) : Entity{};
  const Pushable* const pushable = entities.find<Pushable>(pushed);
  if (!pushable) return;
  const float hard = std::abs(way.x != 0 ? turn.intent.direction.x : turn.intent.direction.y);
  const Vec2 gone = push(tick, pushed, on_lattice(way * (pushable->speed * hard * turn.seconds)));
  if (gone == Vec2{0, 0}) return;
  Carrying carrying(tick);
  carrying.before_move(thing);
  const Vec2 to = solids.world().slide(body, gone, turn.moving.rules).at;
  if (!carrying.after_move(thing, to - turn.pose.at)) return;
  turn.pose.at = to;
  turn.motion.velocity = way * pushable->speed;
}

}  // namespace vole
