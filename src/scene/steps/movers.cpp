// Intent becomes motion, one thing after the other in the order in which they got their movers. What stands on one that
// moves goes along, and what can be pushed gives way.
#include "vole/scene/movers/movers.hpp"

#include "scene/bodies/carrying.hpp"
#include "scene/bodies/level_edges.hpp"
#include "scene/bodies/pushing.hpp"
#include "scene/bodies/row_pushing.hpp"
#include "vole/world/sprite.hpp"

namespace vole {
namespace {

void move(Tick& tick, Entity thing, const Movers::Parts& parts, const Movers::Turn& turn) {
  SolidThings& solids = tick.stage.solids();
  if (tick.stage.removed(thing) || !solids.has(thing) || !tick.goes_on(thing)) return;
  Entities& entities = tick.world.entities;
  Motion& motion = parts.motion;
  Touching& touching = parts.touching;
  Carrying carrying(tick);
  carrying.before_move(thing);
  const Vec2 before = parts.pose.at;
  const Vec2 velocity = motion.velocity;
  Moving moving{solids.world(), solids.body(thing), solids.rules(thing, tick.stage.categories()), &solids};
  RowPushing pushing(entities, solids, tick.stage.categories());
  MoverTurn work{parts.intent,
                 tick.stage.seconds_per_tick(),
                 moving,
                 motion,
                 touching,
                 parts.pose,
                 &parts.body,
                 entities.find<Sprite>(thing),
                 entities.find<LevelEdge>(thing),
                 &tick.world.level,
                 &entities,
                 &pushing};
  turn(work);
  // What the mover itself has added is in it where nothing held the body.
  touching.came_with = touching.wall() || touching.ground || touching.ceiling ? velocity : motion.velocity;
  if (!carrying.after_move(thing, parts.pose.at - before)) {
    parts.pose.at = before;
    motion.velocity = {0, 0};
  }
  solids.put(thing, parts.pose.at, moving.body.box);
  // They lie the other way round when it has turned.
  if (moving.body.shapes) tick.bodies_known = false;
  push_on(tick, thing, work);
  solids.put(thing, parts.pose.at);
}

}  // namespace

void run_movers(Tick& tick) {
  tick.know_bodies();
  tick.movers.visit(tick.world.entities, [&](Entity thing, const Movers::Parts& parts,
                                             const Movers::Turn& turn) { move(tick, thing, parts, turn); });
  keep_in_level(tick);
}

}  // namespace vole
