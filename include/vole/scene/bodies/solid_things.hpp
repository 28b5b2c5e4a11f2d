// The bodies of a scene's things as a collision world. It is made from the components and holds nothing else, so it is no
// state; update() follows whatever has changed.
#pragma once

#include <span>
#include <string>
#include <utility>
#include <vector>

#include "vole/level/categories.hpp"
#include "vole/physics/collision_world.hpp"
#include "vole/scene/bodies/body_shapes.hpp"
#include "vole/world/body.hpp"
#include "vole/world/pose.hpp"
#include "vole/world/world.hpp"

namespace vole {

class SolidThings {
 public:
  // Throws Error for a category that the game does not have.
  void update(const World& world, const Categories& categories, Catalog& catalog);

  const CollisionWorld& world() const { return collisions_; }
  // The categories of the level's tiles, as CollisionWorld::set_tiles takes them.
  std::span<const std::uint8_t> tile_categories() const { return tile_categories_; }
  // None for no_body: a tile, or nothing.
  Entity thing(BodyId id) const { return id < things_.size() ? things_[id] : Entity{}; }
  // As in the last update, or since it was put.
  bool has(Entity thing) const { return collisions_.has(thing.index) && things_[thing.index] == thing; }
  const CollisionBody& body(Entity thing) const { return collisions_.body(thing.index); }
  // The same also while it is out of the way.
  const CollisionBody& known(Entity thing) const {
    return collisions_.has(thing.index) ? collisions_.body(thing.index) : known_[thing.index].body;
  }
  // The place among the `shapes` of its kind that one of its body's shapes comes from.
  std::uint32_t written_shape(Entity thing, std::uint32_t place) const {
    return known_[thing.index].shapes.written(place);
  }
  // What holds it.
  MoveRules rules(Entity thing, const Categories& categories) const;

  // While things are moved one after the other: where one has come to. See also OutOfTheWay.
  void put(Entity thing, Vec2 at);
  // The same with another box for its body.
  void put(Entity thing, Vec2 at, const Rect& box);

 private:
  friend class OutOfTheWay;
  void take_out(Entity thing);
  void put_back(Entity thing);

  struct Known {
    std::string category;
    BodyShapes shapes;
    CollisionBody body;  // as in the last update, or when it was taken out
    std::uint64_t update = 0;
  };

  void follow_tiles(const LevelNow& level, const Categories& categories);
  void follow(Entity thing, const Body& body, const Pose& pose, const World& world,
              const Categories& categories, Catalog& catalog);

  CollisionWorld collisions_;
  // By id, which is the thing's index.
  std::vector<Known> known_;
  std::vector<Entity> things_;
  std::vector<std::uint8_t> tile_categories_;
  std::uint64_t updates_ = 0;
};

// While this lives a thing is out of the way of all others. It is back where it was at the end, unless it was put elsewhere.
class OutOfTheWay {
 public:
  OutOfTheWay(SolidThings& solids, Entity thing) : solids_(&solids), thing_(thing) { solids.take_out(thing); }
  OutOfTheWay(OutOfTheWay&& other) noexcept
      : solids_(std::exchange(other.solids_, nullptr)), thing_(other.thing_) {}
  OutOfTheWay& operator=(OutOfTheWay&&) = delete;
  OutOfTheWay(const OutOfTheWay&) = delete;
  OutOfTheWay& operator=(const OutOfTheWay&) = delete;
  ~OutOfTheWay() {
    if (solids_) solids_->put_back(thing_);
  }

 private:
  SolidThings* solids_;
  Entity thing_;
};

}  // namespace vole
