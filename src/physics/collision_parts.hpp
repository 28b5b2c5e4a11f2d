// How the functions of a CollisionWorld come by what is near.
#pragma once

#include "box_path.hpp"
#include "cells.hpp"
#include "shape_path.hpp"
#include "vole/physics/collision_world.hpp"

namespace vole {

struct CollisionWorld::Scratch {
  std::vector<std::uint32_t> near;
  std::vector<SolidForm> forms;
  std::vector<SolidShape> shapes;
  std::vector<Shape> boxes;  // of bodies without shapes
  std::vector<Shape> moved;  // what is solid of a body that moves
  std::vector<BodyOrCell> found;
};

template <class Visit>
void CollisionWorld::visit_bodies(const Rect& area, const QueryFilter& asked, const Visit& visit) const {
  if (!asked.bodies || (asked.categories & categories_) == 0) return;
  std::vector<std::uint32_t>& near = scratch_->near;
  near.clear();
  near_.find(area, near);
  for (const std::uint32_t id : near)
    if (counts(id, asked)) visit(id, bodies_[id]);
}

// Calls visit(shape, its place) for the shapes of a body that are asked for.
template <class Visit>
void CollisionWorld::visit_parts(const CollisionBody& body, const QueryFilter& asked, const Visit& visit) {
  if (asked.sensors)
    body.visit_shapes(visit);
  else
    body.visit_solid_shapes(visit);
}

template <class Visit>
void CollisionWorld::visit_tiles(const Rect& area, const QueryFilter& asked, const Visit& visit) const {
  if (!asked.tiles) return;
  const CategoryMask categories = of_tiles(asked.categories);
  visit_cells(*tiles_, to_lattice(area), [&](std::int64_t x, std::int64_t y) {
    const CellForm* const form = tiles_->form(x, y);
    if (!form || (categories >> form->category & 1u) == 0) return;
    const IVec2 cell{static_cast<int>(x), static_cast<int>(y)};
    visit(cell, *form, Vec2(cell * tiles_->cell()));
  });
}

}  // namespace vole
