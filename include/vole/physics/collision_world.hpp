// Everything that can be run into and asked for: the tiles of a level, and bodies that are known by numbers.
//
//   CollisionWorld world;
//   world.set_tiles(&level_grid);
//   world.put(7, {.at = {40, 160}, .box = {{-6, -12}, {12, 12}}});        // again whenever it has moved
//   BodyMoved moved = world.slide(world.body(7), velocity * seconds, {.self = 7});
//   if (auto hit = world.cast_ray(eye, look)) ...                          // what is met first
//   world.find(Rect{{0, 0}, {64, 64}}, {}, found);                         // what is there
//
// It knows ids, not things, and no time: whoever moves a body puts it where it has come to. What is asked depends on
// positions and ids alone, not on the order in which bodies came.
//
// A body that is a box stands on the lattice of 1/256 pixel and is moved in whole numbers (lattice_form.hpp); one of other
// shapes in doubles (shape_contact.hpp). Either way motion is swept: nothing is passed through at any speed.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <optional>
#include <span>
#include <vector>

#include "vole/physics/body_id.hpp"
#include "vole/physics/bounds_grid.hpp"
#include "vole/physics/shape_contact.hpp"
#include "vole/physics/solid_grid.hpp"

namespace vole {

using ShapeList = std::vector<Shape>;

struct CollisionBody {
  Vec2 at{0, 0};
  Rect box;                                 // of the body, from `at`
  std::shared_ptr<const ShapeList> shapes;  // what it consists of, from `at`; none: the box
  std::uint8_t category = 0;
  BodyUse use = BodyUse::solid;
  OneWay one_way = OneWay::no;
  // The shapes that are less than the body is: a bit for each, by its place in the list.
  std::uint32_t sensor_shapes = 0, off_shapes = 0;

  // Of all shapes, those that are off too.
  Rect bounds() const;
  // What the shape at a place in the list is: what the body is, or less.
  BodyUse use_of(std::uint32_t place) const;
  // Where one box is all of it that can be held, that box, from `at`: so it is moved in whole numbers.
  std::optional<Rect> solid_box() const;
  // Calls visit(shape, its place in the list) for each shape that is not off; for a box once.
  template <class Visit>
  void visit_shapes(const Visit& visit) const {
    visit_shapes_but(off_shapes, visit);
  }
  // The same for those alone that are all that the body is.
  template <class Visit>
  void visit_solid_shapes(const Visit& visit) const {
    visit_shapes_but(off_shapes | sensor_shapes, visit);
  }

 private:
  template <class Visit>
  void visit_shapes_but(std::uint32_t left_out, const Visit& visit) const {
    if (!shapes) return visit(Shape::box(box), std::uint32_t{0});
    for (std::uint32_t i = 0; i < shapes->size(); ++i)
      if ((left_out >> i & 1u) == 0) visit((*shapes)[i], i);
  }
};

// What is meant by a question, or what holds a motion.
struct QueryFilter {
  CategoryMask categories = all_categories;
  BodyId except = no_body;
  bool tiles = true;
  bool sensors = true;  // as well as what is solid
  bool bodies = true;
};

struct MoveRules {
  CategoryMask blocked_by = all_categories;
  BodyId self = no_body;  // which it does not run into
  float steepest = 50;    // degrees: what is at most so steep is ground
  float slip = 0;         // pixels by which a corner that holds it is gone around
  bool through_one_way = false;
};

// What a motion met on one side.
struct Touch {
  bool any = false;
  Vec2 normal{0, 0};      // of length 1, towards the body that moved
  BodyId body = no_body;  // no_body: a tile
};

struct BodyMoved {
  Vec2 at{0, 0};
  Touch left, right, above, below;  // `below`: ground
  float rest = 0;                   // of a walk, in pixels: what is too little for the lattice
  std::array<Vec2, 8> normals{};    // of all that held it, in order
  std::size_t normal_count = 0;

  bool held() const { return normal_count > 0; }
  // A velocity without its part into what held it, and with all the rest of it.
  Vec2 kept(Vec2 velocity) const;
};

// A body, or a tile: then `body` is no_body.
struct BodyOrCell {
  BodyId body = no_body;
  IVec2 cell{0, 0};

  friend bool operator==(const BodyOrCell& a, const BodyOrCell& b) {
    return a.body == b.body && a.cell == b.cell;
  }
};

struct CastHit {
  double when = 1;  // share of the motion, from 0 to 1
  Vec2 normal{0, -1};
  Vec2 point{0, 0};
  BodyOrCell what;
};

class CollisionWorld {
 public:
  CollisionWorld();
  ~CollisionWorld();

  // The tiles outlive this; nullptr: none. A form's category is a place in the list of categories; an empty list: it is the
  // category's number itself.
  void set_tiles(const SolidGrid* tiles, std::span<const std::uint8_t> categories = {});
  const SolidGrid& tiles() const { return *tiles_; }

  // Adds a body, or says anew where it is and what. Ids are small numbers: memory grows with the largest. A body with a
  // position that is no finite number is not there. Throws Error for a box without a size, or beyond Shape::furthest, and
  // for more than 32 shapes.
  void put(BodyId id, const CollisionBody& body);
  void remove(BodyId id);
  bool has(BodyId id) const { return id < present_.size() && present_[id]; }
  const CollisionBody& body(BodyId id) const { return bodies_[id]; }
  std::size_t size() const { return count_; }
  // One more than the largest id so far.
  BodyId end() const { return static_cast<BodyId>(present_.size()); }

  // Where a body comes to. `slide`: in a straight line, and on along what it meets. `fly`: the same, but what comes down on
  // ground walks on as fast as it went across. `walk`: so many pixels along the ground, up and down slopes, to the left below
  // 0, over at most 64 pieces of it (for shapes that are no boxes 256 pixels); where the ground ends, straight on. The body
  // need not be one that was put.
  BodyMoved slide(const CollisionBody& body, Vec2 motion, const MoveRules& rules = {}) const;
  BodyMoved fly(const CollisionBody& body, Vec2 motion, const MoveRules& rules = {}) const;
  BodyMoved walk(const CollisionBody& body, float length, const MoveRules& rules = {}) const;
  // Whether it stands on ground, and on what.
  Touch ground(const CollisionBody& body, const MoveRules& rules = {}) const;
  // What it would meet first on its way.
  std::optional<CastHit> would_hit(const CollisionBody& body, Vec2 motion, const MoveRules& rules = {}) const;

  // Appends all that overlap a box or a shape, or hold a point: tiles row by row, then bodies by id.
  void find(const Rect& area, const QueryFilter& asked, std::vector<BodyOrCell>& found) const;
  void find(const Shape& shape, Vec2 at, const QueryFilter& asked, std::vector<BodyOrCell>& found) const;
  void find(Vec2 point, const QueryFilter& asked, std::vector<BodyOrCell>& found) const;
  bool any(const Rect& area, const QueryFilter& asked) const;
  // The body with the smallest id; no_body when there is none.
  BodyId first(const Rect& area, const QueryFilter& asked) const;
  // What a ray or a shape that moves in a straight line meets first; of several at once a tile, then the smallest id.
  std::optional<CastHit> cast_ray(Vec2 from, Vec2 motion, const QueryFilter& asked = {}) const;
  std::optional<CastHit> cast_shape(const Shape& shape, Vec2 at, Vec2 motion,
                                    const QueryFilter& asked = {}) const;
  // Appends all that a ray meets, each where it is entered, in the order along it.
  void find_along(Vec2 from, Vec2 motion, const QueryFilter& asked, std::vector<CastHit>& found) const;
  // What is nearest to a point, within a reach in pixels; of several a tile, row by row, then the smallest id.
  std::optional<BodyOrCell> nearest(Vec2 point, float reach, const QueryFilter& asked = {}) const;

 private:
  static const SolidGrid& no_tiles();
  bool counts(BodyId id, const QueryFilter& asked) const;
  void count_categories(BodyId id, int by);
  template <class Visit>
  static void visit_parts(const CollisionBody& body, const QueryFilter& asked, const Visit& visit);
  CategoryMask of_tiles(CategoryMask categories) const;
  template <class Visit>
  void visit_bodies(const Rect& area, const QueryFilter& asked, const Visit& visit) const;
  template <class Visit>
  void visit_tiles(const Rect& area, const QueryFilter& asked, const Visit& visit) const;
  template <class Visit>
  void visit_solids(const Rect& area, const QueryFilter& asked, const Visit& visit) const;
  template <class Visit>
  void visit_tiles_along(Vec2 from, Vec2 motion, const QueryFilter& asked, const Visit& visit) const;
  template <class Visit>
  void visit_bodies_along(Vec2 from, Vec2 motion, const Rect& area, const QueryFilter& asked,
                          const Visit& visit) const;
  void gather_forms(const Rect& area, const MoveRules& rules) const;
  void gather_shapes(const Rect& area, const QueryFilter& asked, bool through_one_way) const;
  std::span<const Shape> solid_shapes(const CollisionBody& body) const;
  template <class Move>
  BodyMoved move(const CollisionBody& body, Vec2 reach, const MoveRules& rules, const Move& move) const;
  std::optional<CastHit> cast_shapes(std::span<const Shape> shapes, Vec2 at, Vec2 motion,
                                     const QueryFilter& asked, const MoveRules& rules) const;

  const SolidGrid* tiles_ = &no_tiles();
  std::vector<std::uint8_t> tile_categories_;
  std::vector<CollisionBody> bodies_;  // by id
  std::vector<bool> present_;
  BoundsGrid near_;
  std::size_t count_ = 0;
  // How many bodies that are not off each category has, and which have any.
  std::array<std::uint32_t, most_categories> in_category_{};
  CategoryMask categories_ = 0;
  // Memory that questions use again: they change nothing else, but are asked by one thread at a time.
  struct Scratch;
  std::unique_ptr<Scratch> scratch_;
};

}  // namespace vole
