#include "box_path.hpp"

#include "entered_cells.hpp"

namespace vole {

bool BoxSurroundings::fits(const LatticeBox& box, const LatticeBox& was) const {
  bool free = true;
  visit_near(box, [&](const LatticeForm& form, LatticePoint origin, OneWay one_way, const Met&) {
    free = free && !(form.overlaps(box, origin) && may_hold(form, origin, one_way, was));
  });
  return free;
}

// Where a way ends between lattice points, the one that was taken may lie inside of something else: then the box stays back,
// by one subpixel along each axis or, in the narrowest corners, where it was.
LatticePoint BoxSurroundings::kept_outside(const LatticeBox& box, LatticePoint motion,
                                           const BoxLeg& leg) const {
  const bool exact = (leg.line.x == 0 || leg.line.y == 0) && (motion.x == 0 || motion.y == 0);
  if (exact) return leg.at;
  const auto back = [](std::int64_t by) { return by > 0 ? -1 : by < 0 ? 1 : 0; };
  const LatticePoint across{back(motion.x), 0}, down{0, back(motion.y)};
  const LatticePoint tries[] = {leg.at, leg.at + down, leg.at + across, leg.at + across + down};
  for (const LatticePoint at : tries)
    if (fits(box.moved_by(at - box.at()), box)) return at;
  return box.at();
}

BoxLeg BoxSurroundings::sweep(const LatticeBox& box, LatticePoint motion) const {
  BoxSweep sweep(box, motion);
  BoxLeg leg;
  const auto meet = [&](const LatticeForm& form, LatticePoint origin, OneWay one_way, const Met& what) {
    if (!sweep.meet(form, origin, one_way)) return;
    leg.what = what;
    leg.form = &form;
    leg.origin = origin;
  };
  for (const SolidForm& each : forms_)
    if (counts(each.one_way)) meet(each.form, each.origin, each.one_way, {each.id, 0, 0});
  visit_entered_cells(
      grid_, box, motion,
      [&](std::int64_t x, std::int64_t y) {
        if (const CellForm* const form = cell(x, y))
          meet(form->lattice(), cell_corner(grid_, x, y), form->one_way, {Met::tile, x, y});
      },
      [&](const Moment& when) { return when <= sweep.when(); });
  leg.hit = sweep.hit();
  leg.line = sweep.line();
  leg.at = sweep.stop();
  leg.when = sweep.hit() ? sweep.when().share() : 1;
  if (leg.hit) leg.at = kept_outside(box, motion, leg);
  return leg;
}

}  // namespace vole
