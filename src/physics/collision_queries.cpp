// What a CollisionWorld is asked.
#include <algorithm>
#include <cmath>

#include "boxes.hpp"
#include "collision_parts.hpp"
#include "ray_cells.hpp"

namespace vole {
namespace {

// Whether a box reaches into a shape. Of the box only the part near the shape matters, and only that can be a shape.
bool overlaps(const Rect& area, const Shape& shape, Vec2 at) {
  const Rect part = area.shared_with(shape.bounds().moved_by(at));
  if (part.empty()) return false;
  const Vec2 middle = part.at + part.size * 0.5f;
  if (std::max(part.size.x, part.size.y) > Shape::furthest) return true;
  return gap_between(Shape::box({part.at - middle, part.size}), middle, shape, at).distance < 0;
}

bool comes_first(const CastHit& a, const CastHit& b) {
  if (a.when != b.when) return a.when < b.when;
  // no_body, for a tile, and then by id.
  if (a.what.body != b.what.body) return a.what.body + 1u < b.what.body + 1u;
  return a.what.cell.y != b.what.cell.y ? a.what.cell.y < b.what.cell.y : a.what.cell.x < b.what.cell.x;
}

// Longer rays are cut: 1,000,000 pixels.
Vec2 cut_short(Vec2 motion) {
  constexpr float longest = 1e6f;
  const float most = std::max(std::abs(motion.x), std::abs(motion.y));
  return most > longest ? motion * (longest / most) : motion;
}

bool is_ray(Vec2 from, Vec2 motion) {
  constexpr float furthest = 1e9f;
  return std::abs(from.x) < furthest && std::abs(from.y) < furthest && std::isfinite(motion.x) &&
         std::isfinite(motion.y);
}

// The box around a part of a ray, from and to a share of it.
Rect around_ray(Vec2 from, Vec2 motion, float first, float last) {
  const Vec2 a = from + motion * first, b = from + motion * last;
  const Vec2 corner{std::min(a.x, b.x), std::min(a.y, b.y)};
  return {corner, Vec2{std::max(a.x, b.x), std::max(a.y, b.y)} - corner};
}

}  // namespace

void CollisionWorld::find(const Rect& area, const QueryFilter& asked, std::vector<BodyOrCell>& found) const {
  if (!is_finite(area) || area.empty()) return;
  const LatticeBox box = to_lattice(area);
  visit_tiles(area, asked, [&](IVec2 cell, const CellForm& form, Vec2) {
    if (form.lattice().overlaps(box, cell_corner(*tiles_, cell.x, cell.y))) found.push_back({no_body, cell});
  });
  visit_bodies(area, asked, [&](BodyId id, const CollisionBody& body) {
    bool there = !body.shapes && area.overlaps(body.box.moved_by(body.at));
    if (body.shapes)
      visit_parts(body, asked, [&](const Shape& shape, std::uint32_t) {
        there = there || overlaps(area, shape, body.at);
      });
    if (there) found.push_back({id, {0, 0}});
  });
}

bool CollisionWorld::any(const Rect& area, const QueryFilter& asked) const {
  scratch_->found.clear();
  find(area, asked, scratch_->found);
  return !scratch_->found.empty();
}

BodyId CollisionWorld::first(const Rect& area, const QueryFilter& asked) const {
  scratch_->found.clear();
  find(area, asked, scratch_->found);
  for (const BodyOrCell& found : scratch_->found)
    if (found.body != no_body) return found.body;
  return no_body;
}

// Calls visit(what, shape, at) for all near an area.
template <class Visit>
void CollisionWorld::visit_solids(const Rect& area, const QueryFilter& asked, const Visit& visit) const {
  if (!is_finite(area)) return;
  visit_tiles(area, asked, [&](IVec2 cell, const CellForm& form, Vec2 corner) {
    visit(BodyOrCell{no_body, cell}, form.shape(), corner);
  });
  visit_bodies(area, asked, [&](BodyId id, const CollisionBody& body) {
    visit_parts(body, asked, [&](const Shape& shape, std::uint32_t) {
      visit(BodyOrCell{id, {0, 0}}, shape, body.at);
    });
  });
}

namespace {

void add_once(const BodyOrCell& what, std::vector<BodyOrCell>& found, std::size_t first) {
  if (found.size() == first || !(found.back() == what)) found.push_back(what);
}

}  // namespace

void CollisionWorld::find(const Shape& shape, Vec2 at, const QueryFilter& asked,
                          std::vector<BodyOrCell>& found) const {
  const std::size_t first = found.size();
  visit_solids(shape.bounds().moved_by(at), asked,
               [&](const BodyOrCell& what, const Shape& other, Vec2 other_at) {
                 if (gap_between(shape, at, other, other_at).distance < 0) add_once(what, found, first);
               });
}

void CollisionWorld::find(Vec2 point, const QueryFilter& asked, std::vector<BodyOrCell>& found) const {
  const std::size_t first = found.size();
  visit_solids({point, {0, 0}}, asked, [&](const BodyOrCell& what, const Shape& shape, Vec2 at) {
    if (vole::cast_ray(point, {0, 0}, shape, at).hit) add_once(what, found, first);
  });
}

// Calls visit(cell, form, on the way) for each tile on a ray that counts, in order, until that says it is enough.
template <class Visit>
void CollisionWorld::visit_tiles_along(Vec2 from, Vec2 motion, const QueryFilter& asked,
                                       const Visit& visit) const {
  if (!asked.tiles) return;
  const CategoryMask categories = of_tiles(asked.categories);
  RayCells cells(from, motion, tiles_->cell());
  while (cells.pass_empty(*tiles_)) {
    const CellForm* const form = tiles_->form(cells.x(), cells.y());
    if (form && (categories >> form->category & 1u) != 0) {
      const IVec2 cell{static_cast<int>(cells.x()), static_cast<int>(cells.y())};
      if (visit(cell, *form, cells)) return;
    }
    if (!cells.next()) return;
  }
}

// Calls visit(hit) for each body near an area that a ray meets, where it meets the first of its shapes.
template <class Visit>
void CollisionWorld::visit_bodies_along(Vec2 from, Vec2 motion, const Rect& area, const QueryFilter& asked,
                                        const Visit& visit) const {
  visit_bodies(area, asked, [&](BodyId id, const CollisionBody& body) {
    std::optional<CastHit> first;
    const auto meet = [&](const Shape& shape, std::uint32_t) {
      const ShapeHit hit = vole::cast_ray(from, motion, shape, body.at);
      if (hit.hit && (!first || hit.when < first->when))
        first = {hit.when, hit.normal, hit.point, {id, {0, 0}}};
    };
    visit_parts(body, asked, meet);
    if (first) visit(*first);
  });
}

namespace {

std::optional<CastHit> hit_of_tile(Vec2 from, Vec2 motion, IVec2 cell, IVec2 size, const CellForm& form) {
  const ShapeHit hit = cast_ray(from, motion, form.shape(), Vec2(cell * size));
  if (!hit.hit) return std::nullopt;
  return CastHit{hit.when, hit.normal, hit.point, {no_body, cell}};
}

}  // namespace

std::optional<CastHit> CollisionWorld::cast_ray(Vec2 from, Vec2 motion, const QueryFilter& asked) const {
  if (!is_ray(from, motion)) return std::nullopt;
  motion = cut_short(motion);
  std::optional<CastHit> best;
  visit_tiles_along(from, motion, asked, [&](IVec2 cell, const CellForm& form, const RayCells& way) {
    if (form.is_full())
      best =
          CastHit{way.when(), way.normal(), from + motion * static_cast<float>(way.when()), {no_body, cell}};
    else
      best = hit_of_tile(from, motion, cell, tiles_->cell(), form);
    return best.has_value();
  });
  // Piece by piece, so that what is behind the first hit costs nothing.
  constexpr float piece = 256;
  const float length = near_.size() == 0 ? 0 : std::max(std::abs(motion.x), std::abs(motion.y));
  const int pieces = std::max(static_cast<int>(std::ceil(length / piece)), 1);
  for (int i = 0; i < pieces; ++i) {
    const float first = static_cast<float>(i) / static_cast<float>(pieces);
    if (best && best->when < static_cast<double>(first)) break;
    const Rect area = around_ray(from, motion, first, static_cast<float>(i + 1) / static_cast<float>(pieces));
    visit_bodies_along(from, motion, area, asked, [&best](const CastHit& hit) {
      if (!best || comes_first(hit, *best)) best = hit;
    });
  }
  return best;
}

void CollisionWorld::find_along(Vec2 from, Vec2 motion, const QueryFilter& asked,
                                std::vector<CastHit>& found) const {
  if (!is_ray(from, motion)) return;
  motion = cut_short(motion);
  const auto first = static_cast<std::ptrdiff_t>(found.size());
  visit_tiles_along(from, motion, asked, [&](IVec2 cell, const CellForm& form, const RayCells&) {
    const std::optional<CastHit> hit = hit_of_tile(from, motion, cell, tiles_->cell(), form);
    if (hit) found.push_back(*hit);
    // Outside all cells are alike, and there is no end of them.
    return hit && !IRect{{0, 0}, tiles_->cells()}.contains(cell);
  });
  visit_bodies_along(from, motion, around_ray(from, motion, 0, 1), asked,
                     [&found](const CastHit& hit) { found.push_back(hit); });
  std::sort(found.begin() + first, found.end(), comes_first);
}

std::optional<CastHit> CollisionWorld::cast_shapes(std::span<const Shape> shapes, Vec2 at, Vec2 motion,
                                                   const QueryFilter& asked, const MoveRules& rules) const {
  const Rect start = bounds_of(shapes).moved_by(at);
  const Rect area = start.joined_with(start.moved_by(motion));
  if (!is_finite(area)) return std::nullopt;
  gather_shapes(area, asked, rules.through_one_way);
  static const SolidGrid no_grid;
  const ShapeMotion::Hit hit = ShapeMotion({asked.tiles ? *tiles_ : no_grid, of_tiles(asked.categories),
                                            scratch_->shapes, rules.through_one_way},
                                           shapes, at, 1)
                                   .sweep(motion);
  if (!hit.any) return std::nullopt;
  return CastHit{hit.hit.when, hit.hit.normal, hit.hit.point, {hit.body, hit.cell}};
}

std::optional<CastHit> CollisionWorld::cast_shape(const Shape& shape, Vec2 at, Vec2 motion,
                                                  const QueryFilter& asked) const {
  return cast_shapes({&shape, 1}, at, motion, asked, {.blocked_by = asked.categories});
}

std::optional<BodyOrCell> CollisionWorld::nearest(Vec2 point, float reach, const QueryFilter& asked) const {
  std::optional<BodyOrCell> best;
  double distance = static_cast<double>(reach);
  const Rect area{point - Vec2(reach), Vec2(2 * reach)};
  if (!(reach >= 0) || !is_finite(area)) return std::nullopt;
  const Shape dot = Shape::circle({0, 0}, 1);  // the gap to a point is 1 more
  visit_solids(area, asked, [&](const BodyOrCell& what, const Shape& shape, Vec2 at) {
    const double gap = std::max(gap_between(dot, point, shape, at).distance + 1, 0.0);
    if (gap > distance || (best && gap == distance)) return;
    distance = gap;
    best = what;
  });
  return best;
}

}  // namespace vole
