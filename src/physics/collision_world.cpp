#include "vole/physics/collision_world.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>

#include "box_motion.hpp"
#include "boxes.hpp"
#include "collision_parts.hpp"
#include "vole/base/error.hpp"
#include "vole/base/trig.hpp"

namespace vole {

CollisionWorld::CollisionWorld() : scratch_(std::make_unique<Scratch>()) {}
CollisionWorld::~CollisionWorld() = default;

const SolidGrid& CollisionWorld::no_tiles() {
  static const SolidGrid none;
  return none;
}

namespace {

void expect_box(const Rect& box) {
  const float furthest = Shape::furthest;
  if (box.size.x > 0 && box.size.y > 0 && box.left() >= -furthest && box.top() >= -furthest &&
      box.right() <= furthest && box.bottom() <= furthest)
    return;
  throw Error(
      FilePosition{},
      fmt::format("a body's box of {} x {} pixels at {}, {} cannot be: it has a size above 0 and lies "
                  "within {} pixels of the position",
                  box.size.x, box.size.y, box.at.x, box.at.y, furthest));
}

}  // namespace

Rect CollisionBody::bounds() const {
  return (shapes ? bounds_of(*shapes) : box).moved_by(at);
}

BodyUse CollisionBody::use_of(std::uint32_t place) const {
  if (off_shapes >> place & 1u) return BodyUse::off;
  return sensor_shapes >> place & 1u ? std::max(use, BodyUse::sensor) : use;
}

std::optional<Rect> CollisionBody::solid_box() const {
  if (!shapes) return box;
  std::optional<Rect> only;
  int solid = 0;
  visit_solid_shapes([&](const Shape& shape, std::uint32_t) {
    ++solid;
    if (shape == Shape::box(shape.bounds())) only = shape.bounds();
  });
  return solid == 1 ? only : std::nullopt;
}

void CollisionWorld::set_tiles(const SolidGrid* tiles, std::span<const std::uint8_t> categories) {
  tiles_ = tiles ? tiles : &no_tiles();
  tile_categories_.assign(categories.begin(), categories.end());
}

// The same set in the numbers of the tiles.
CategoryMask CollisionWorld::of_tiles(CategoryMask categories) const {
  if (tile_categories_.empty()) return categories;
  CategoryMask mask = 0;
  for (std::size_t i = 0; i < tile_categories_.size(); ++i)
    mask |= (categories >> tile_categories_[i] & 1u) << i;
  return mask;
}

void CollisionWorld::put(BodyId id, const CollisionBody& body) {
  const Rect bounds = body.bounds();
  if (!is_finite(bounds)) return remove(id);
  if (!body.shapes) expect_box(body.box);
  if (body.shapes && body.shapes->size() > most_body_shapes)
    throw Error(FilePosition{},
                fmt::format("a body of {} shapes: at most {}", body.shapes->size(), most_body_shapes));
  if (id >= present_.size()) {
    present_.resize(std::size_t{id} + 1);
    bodies_.resize(std::size_t{id} + 1);
  }
  if (present_[id])
    count_categories(id, -1);
  else
    ++count_;
  present_[id] = true;
  bodies_[id] = body;
  count_categories(id, 1);
  if (body.use == BodyUse::off)
    near_.remove(id);
  else
    near_.put(id, bounds);
}

void CollisionWorld::remove(BodyId id) {
  if (!has(id)) return;
  count_categories(id, -1);
  near_.remove(id);
  present_[id] = false;
  bodies_[id] = {};
  --count_;
}

void CollisionWorld::count_categories(BodyId id, int by) {
  const CollisionBody& body = bodies_[id];
  if (body.use == BodyUse::off || body.category >= most_categories) return;
  std::uint32_t& count = in_category_[body.category];
  count += static_cast<std::uint32_t>(by);
  const CategoryMask its = CategoryMask{1} << body.category;
  categories_ = count > 0 ? categories_ | its : categories_ & ~its;
}

bool CollisionWorld::counts(BodyId id, const QueryFilter& asked) const {
  const CollisionBody& body = bodies_[id];
  return id != asked.except && (asked.categories >> body.category & 1u) != 0 &&
         (body.use == BodyUse::solid || (asked.sensors && body.use == BodyUse::sensor));
}

namespace {

// All that a motion of this reach can come to.
Rect area_of(const Rect& bounds, Vec2 reach) {
  return bounds.widened_by(std::abs(reach.x) + std::abs(reach.y) + 2);
}

double steepest_of(const MoveRules& rules) {
  const float degrees = std::clamp(rules.steepest, 0.0f, 89.0f);
  return static_cast<double>(sin_degrees(degrees)) / static_cast<double>(cos_degrees(degrees));
}

QueryFilter asked_by(const MoveRules& rules) {
  return {rules.blocked_by, rules.self, true, false};
}

Touch touch_of(const Held& held) {
  if (!held.any) return {};
  return {true, unit_normal(held.line), held.what.id == Met::tile ? no_body : held.what.id};
}

LatticeBox lattice_box(const Rect& box, const CollisionBody& body) {
  return to_lattice(box).moved_by(to_lattice(body.at));
}

// The middle of what a box and the box around a form that it touches share.
Vec2 touching_point(const LatticeBox& box, const LatticeForm& form, LatticePoint origin) {
  const LatticeBox other = form.bounds().moved_by(origin);
  return (to_vec({std::max(box.left, other.left), std::max(box.top, other.top)}) +
          to_vec({std::min(box.right, other.right), std::min(box.bottom, other.bottom)})) *
         0.5f;
}

BodyMoved result_of(const BoxMoved& moved, const LatticeBox& box, const CollisionBody& body) {
  BodyMoved result;
  result.at = body.at + to_vec(moved.box.at() - box.at());
  result.left = touch_of(moved.left);
  result.right = touch_of(moved.right);
  result.above = touch_of(moved.above);
  result.below = touch_of(moved.below);
  result.rest = static_cast<float>(moved.rest / static_cast<double>(subpixels));
  result.normal_count = moved.line_count;
  for (std::size_t i = 0; i < moved.line_count; ++i) result.normals[i] = unit_normal(moved.lines[i]);
  return result;
}

}  // namespace

void CollisionWorld::gather_forms(const Rect& area, const MoveRules& rules) const {
  std::vector<SolidForm>& forms = scratch_->forms;
  forms.clear();
  visit_bodies(area, asked_by(rules), [&](BodyId id, const CollisionBody& body) {
    const LatticePoint origin = to_lattice(body.at);
    if (!body.shapes) forms.push_back({LatticeForm(to_lattice(body.box)), origin, body.one_way, id});
    if (body.shapes)
      body.visit_solid_shapes([&](const Shape& shape, std::uint32_t) {
        forms.push_back({LatticeForm(shape), origin, body.one_way, id});
      });
  });
}

void CollisionWorld::gather_shapes(const Rect& area, const QueryFilter& asked, bool through_one_way) const {
  Scratch& scratch = *scratch_;
  scratch.shapes.clear();
  scratch.boxes.clear();
  visit_bodies(area, asked, [&](BodyId id, const CollisionBody& body) {
    if (body.one_way != OneWay::no && through_one_way) return;
    if (!body.shapes) scratch.boxes.push_back(Shape::box(body.box));
    visit_parts(body, asked, [&](const Shape& shape, std::uint32_t) {
      scratch.shapes.push_back({body.shapes ? &shape : nullptr, body.at, body.one_way, id, {0, 0}});
    });
  });
  // Only now do they stay where they are.
  auto next_box = scratch.boxes.begin();
  for (SolidShape& solid : scratch.shapes)
    if (!solid.shape) solid.shape = &*next_box++;
}

// Into memory that is used again where they are not all shapes of it; none: nothing holds it.
std::span<const Shape> CollisionWorld::solid_shapes(const CollisionBody& body) const {
  if ((body.sensor_shapes | body.off_shapes) == 0) return *body.shapes;
  std::vector<Shape>& moved = scratch_->moved;
  moved.clear();
  body.visit_solid_shapes([&moved](const Shape& shape, std::uint32_t) { moved.push_back(shape); });
  return moved;
}

// Calls move(motion) with a BoxMotion, or with a ShapeMotion for a body that is no box.
template <class Move>
BodyMoved CollisionWorld::move(const CollisionBody& body, Vec2 reach, const MoveRules& rules,
                               const Move& move) const {
  const Rect area = area_of(body.bounds(), reach);
  if (!is_finite(area)) {
    BodyMoved stays;
    stays.at = body.at;
    return stays;
  }
  const std::optional<Rect> box = body.solid_box();
  if (!box) {
    gather_shapes(area, asked_by(rules), rules.through_one_way);
    ShapeMotion motion({*tiles_, of_tiles(rules.blocked_by), scratch_->shapes, rules.through_one_way},
                       solid_shapes(body), body.at, steepest_of(rules));
    return move(motion);
  }
  gather_forms(area, rules);
  const BoxSurroundings around(*tiles_, scratch_->forms, of_tiles(rules.blocked_by), rules.through_one_way);
  const LatticeBox start = lattice_box(*box, body);
  BoxMotion motion(around, start, steepest_of(rules), to_subpixels(rules.slip));
  return result_of(move(motion), start, body);
}

namespace {

// The one motion for boxes and for other shapes.
template <class OfBox, class OfShapes>
struct Either {
  OfBox of_box;
  OfShapes of_shapes;

  BoxMoved operator()(BoxMotion& motion) const { return of_box(motion); }
  BodyMoved operator()(ShapeMotion& motion) const { return of_shapes(motion); }
};
template <class OfBox, class OfShapes>
Either(OfBox, OfShapes) -> Either<OfBox, OfShapes>;

}  // namespace

BodyMoved CollisionWorld::slide(const CollisionBody& body, Vec2 motion, const MoveRules& rules) const {
  return move(body, motion, rules,
              Either{[&](BoxMotion& box) { return box.slide(to_lattice(motion)); },
                     [&](ShapeMotion& shapes) { return shapes.slide(motion); }});
}

BodyMoved CollisionWorld::fly(const CollisionBody& body, Vec2 motion, const MoveRules& rules) const {
  return move(body, motion, rules,
              Either{[&](BoxMotion& box) { return box.fly(to_lattice(motion)); },
                     [&](ShapeMotion& shapes) { return shapes.fly(motion); }});
}

BodyMoved CollisionWorld::walk(const CollisionBody& body, float length, const MoveRules& rules) const {
  const double units = static_cast<double>(length) * static_cast<double>(subpixels);
  return move(body, {length, 0}, rules,
              Either{[&](BoxMotion& box) { return box.walk(units); },
                     [&](ShapeMotion& shapes) { return shapes.walk(length); }});
}

Touch CollisionWorld::ground(const CollisionBody& body, const MoveRules& rules) const {
  return walk(body, 0, rules).below;
}

std::optional<CastHit> CollisionWorld::would_hit(const CollisionBody& body, Vec2 motion,
                                                 const MoveRules& rules) const {
  const Rect area = area_of(body.bounds(), motion);
  if (!is_finite(area)) return std::nullopt;
  const std::optional<Rect> solid = body.solid_box();
  if (!solid) return cast_shapes(solid_shapes(body), body.at, motion, asked_by(rules), rules);
  gather_forms(area, rules);
  const LatticeBox box = lattice_box(*solid, body);
  const BoxLeg leg =
      BoxSurroundings(*tiles_, scratch_->forms, of_tiles(rules.blocked_by), rules.through_one_way)
          .sweep(box, to_lattice(motion));
  if (!leg.hit) return std::nullopt;
  CastHit hit;
  hit.when = leg.when;
  hit.normal = unit_normal(leg.line);
  hit.point = touching_point(box.moved_by(leg.at - box.at()), *leg.form, leg.origin);
  if (leg.what.id == Met::tile)
    hit.what.cell = {static_cast<int>(leg.what.x), static_cast<int>(leg.what.y)};
  else
    hit.what.body = leg.what.id;
  return hit;
}

}  // namespace vole
