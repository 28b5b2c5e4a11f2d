// A box among what is solid: cells of a grid and forms besides. It is moved in legs, of which each ends where something is
// met; after each it is outside of everything that it was outside of before.
#pragma once

#include <cstdint>
#include <span>

#include "box_sweep.hpp"
#include "cells.hpp"
#include "vole/physics/solid_grid.hpp"

namespace vole {

// Something solid besides the grid.
struct SolidForm {
  LatticeForm form;
  LatticePoint origin;
  OneWay one_way = OneWay::no;
  std::uint32_t id = 0;
};

// What was met.
struct Met {
  static constexpr std::uint32_t tile = 0xffffffffu;

  std::uint32_t id = tile;  // of the form
  std::int64_t x = 0;       // of the cell
  std::int64_t y = 0;
};

struct BoxLeg {
  LatticePoint at;  // where the box's corner is at the end
  bool hit = false;
  LatticeLine line;  // over which it would have gone inside
  double when = 1;   // share of the motion
  Met what;
  const LatticeForm* form = nullptr;  // that was hit
  LatticePoint origin;                // of it
};

class BoxSurroundings {
 public:
  // All outlive this. `mask` has the bits of the categories of cells that hold; what is one-way may be let through.
  BoxSurroundings(const SolidGrid& grid, std::span<const SolidForm> forms, std::uint32_t mask = ~0u,
                  bool through_one_way = false)
      : grid_(grid), forms_(forms), mask_(mask), through_one_way_(through_one_way) {}

  BoxLeg sweep(const LatticeBox& box, LatticePoint motion) const;
  // Whether the box can be put there: it reaches into nothing that could hold it where it was.
  bool fits(const LatticeBox& box, const LatticeBox& was) const;

  // Calls visit(form, origin, one_way, met) for all that a box reaches into or touches.
  template <class Visit>
  void visit_near(const LatticeBox& box, const Visit& visit) const;

 private:
  LatticePoint kept_outside(const LatticeBox& box, LatticePoint motion, const BoxLeg& leg) const;
  bool counts(OneWay one_way) const { return one_way == OneWay::no || !through_one_way_; }
  const CellForm* cell(std::int64_t x, std::int64_t y) const {
    const CellForm* const form = grid_.form(x, y);
    return form && counts(form->one_way) && (mask_ >> form->category & 1u) != 0 ? form : nullptr;
  }

  const SolidGrid& grid_;
  std::span<const SolidForm> forms_;
  std::uint32_t mask_;
  bool through_one_way_;
};

template <class Visit>
void BoxSurroundings::visit_near(const LatticeBox& box, const Visit& visit) const {
  const LatticeBox wider{box.left - 1, box.top - 1, box.right + 1, box.bottom + 1};
  visit_cells(grid_, wider, [&](std::int64_t x, std::int64_t y) {
    if (const CellForm* const form = cell(x, y))
      visit(form->lattice(), cell_corner(grid_, x, y), form->one_way, Met{Met::tile, x, y});
  });
  for (const SolidForm& each : forms_)
    if (counts(each.one_way) && each.form.overlaps(wider, each.origin))
      visit(each.form, each.origin, each.one_way, Met{each.id, 0, 0});
}

}  // namespace vole
