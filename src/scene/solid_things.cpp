#include "vole/scene/solid_things.hpp"

#include <algorithm>

namespace vole {
namespace {

bool same(const std::vector<ShapeText>& known, const Shapes* shapes) {
  if (!shapes) return known.empty();
  return std::equal(known.begin(), known.end(), shapes->list.begin(), shapes->list.end(),
                    [](const ShapeText& a, const Located<ShapeText>& b) { return a == b.value; });
}

bool same(const CollisionBody& a, const CollisionBody& b) {
  return a.at == b.at && a.box == b.box && a.shapes == b.shapes && a.category == b.category &&
         a.use == b.use && a.one_way == b.one_way;
}

std::shared_ptr<const ShapeList> made_of(const std::vector<ShapeText>& texts) {
  auto list = std::make_shared<ShapeList>();
  for (const ShapeText& text : texts) list->push_back(shape_of(text));
  return list;
}

}  // namespace

void SolidThings::follow_tiles(const LevelNow& level, const Categories& categories) {
  if (!level) return collisions_.set_tiles(nullptr);
  tile_categories_.clear();
  if (const auto& tileset = level.file().tileset)
    for (const Located<std::string>& name : tileset->categories)
      tile_categories_.push_back(categories.number(name.value, name.where));
  collisions_.set_tiles(&level.solid(), tile_categories_);
}

void SolidThings::follow(Entity thing, const Body& body, const Pose& pose, const Shapes* shapes,
                         const Categories& categories) {
  if (thing.index >= known_.size()) known_.resize(std::size_t{thing.index} + 1);
  Known& known = known_[thing.index];
  known.update = updates_;
  known.thing = thing;
  if (known.category != body.category.value) {
    known.body.category = categories.number(body.category.value, body.category.where);
    known.category = body.category.value;
  }
  if (!same(known.shapes, shapes)) {
    known.shapes.clear();
    if (shapes)
      for (const Located<ShapeText>& shape : shapes->list) known.shapes.push_back(shape.value);
    known.body.shapes = known.shapes.empty() ? nullptr : made_of(known.shapes);
  }
  CollisionBody& now = known.body;
  now.at = pose.at;
  now.box = body.box({0, 0});
  now.use = body.use;
  now.one_way = body.one_way;
  if (!collisions_.has(thing.index) || !same(collisions_.body(thing.index), now))
    collisions_.put(thing.index, now);
}

void SolidThings::update(World& world, const Categories& categories) {
  ++updates_;
  follow_tiles(world.level, categories);
  const Entities& entities = world.entities;
  world.entities.visit<Body, Pose>([&](Entity thing, const Body& body, const Pose& pose) {
    if (!entities.removed(thing)) follow(thing, body, pose, entities.find<Shapes>(thing), categories);
  });
  for (BodyId id = 0; id < known_.size(); ++id)
    if (known_[id].update != updates_) {
      collisions_.remove(id);
      known_[id].thing = {};
    }
}

MoveRules SolidThings::rules(Entity thing, const Categories& categories) const {
  MoveRules rules;
  rules.self = thing.index;
  rules.blocked_by = known_[thing.index].body.use == BodyUse::solid
                         ? categories.blocks(known_[thing.index].body.category)
                         : CategoryMask{0};
  return rules;
}

void SolidThings::put(Entity thing, Vec2 at) {
  Known& known = known_[thing.index];
  known.body.at = at;
  collisions_.put(thing.index, known.body);
}

}  // namespace vole
