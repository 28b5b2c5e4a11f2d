#include "vole/scene/bodies/solid_things.hpp"

#include <algorithm>

#include "vole/level/level.hpp"

namespace vole {
namespace {

bool same(const CollisionBody& a, const CollisionBody& b) {
  return a.at == b.at && a.box == b.box && a.shapes == b.shapes && a.category == b.category &&
         a.use == b.use && a.one_way == b.one_way && a.sensor_shapes == b.sensor_shapes &&
         a.off_shapes == b.off_shapes;
}

}  // namespace

void SolidThings::follow_tiles(const LevelNow& level, const Categories& categories) {
  if (!level) return collisions_.set_tiles(nullptr);
  tile_categories_.clear();
  for (const Located<std::string>& name : level.file().tiles.categories())
    tile_categories_.push_back(categories.number(name.value, name.where));
  collisions_.set_tiles(&level.solid(), tile_categories_);
}

void SolidThings::follow(Entity thing, const Body& body, const Pose& pose, const World& world,
                         const Categories& categories, Catalog& catalog) {
  if (thing.index >= known_.size()) {
    known_.resize(std::size_t{thing.index} + 1);
    things_.resize(known_.size());
  }
  Known& known = known_[thing.index];
  known.update = updates_;
  things_[thing.index] = thing;
  if (known.category != body.category.value) {
    known.body.category = categories.number(body.category.value, body.category.where);
    known.category = body.category.value;
  }
  const Shapes* const shapes = world.entities.find<Shapes>(thing);
  const Switches* const switches = world.entities.find<Switches>(thing);
  known.shapes.follow(shapes, catalog);
  CollisionBody& now = known.body;
  now.at = pose.at;
  now.box = body.box({0, 0});
  now.use = switches ? switches->use_of({}, body.use) : body.use;
  now.one_way = body.one_way;
  now.shapes = known.shapes.list(pose.mirrored);
  if (shapes) known.shapes.put_uses(*shapes, switches, now);
  if (!collisions_.has(thing.index) || !same(collisions_.body(thing.index), now))
    collisions_.put(thing.index, now);
}

void SolidThings::update(const World& world, const Categories& categories, Catalog& catalog) {
  ++updates_;
  follow_tiles(world.level, categories);
  const Entities& entities = world.entities;
  entities.visit<Body, Pose>([&](Entity thing, const Body& body, const Pose& pose) {
    if (!entities.removed(thing)) follow(thing, body, pose, world, categories, catalog);
  });
  for (BodyId id = 0; id < known_.size(); ++id)
    if (known_[id].update != updates_) {
      collisions_.remove(id);
      things_[id] = {};
    }
}

MoveRules SolidThings::rules(Entity thing, const Categories& categories) const {
  const CollisionBody& body = known(thing);
  MoveRules rules;
  rules.self = thing.index;
  rules.blocked_by = body.use == BodyUse::solid ? categories.blocks(body.category) : CategoryMask{0};
  return rules;
}

void SolidThings::put(Entity thing, Vec2 at) {
  put(thing, at, known(thing).box);
}

void SolidThings::put(Entity thing, Vec2 at, const Rect& box) {
  const CollisionBody& now = known(thing);
  if (collisions_.has(thing.index) && now.at == at && now.box == box) return;
  CollisionBody body = now;
  body.at = at;
  body.box = box;
  collisions_.put(thing.index, body);
}

void SolidThings::take_out(Entity thing) {
  if (!collisions_.has(thing.index)) return;
  known_[thing.index].body = collisions_.body(thing.index);
  collisions_.remove(thing.index);
}

void SolidThings::put_back(Entity thing) {
  if (!collisions_.has(thing.index)) put(thing, known(thing).at);
}

}  // namespace vole
