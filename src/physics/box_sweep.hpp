// Where a box that moves in a straight line first enters one of several convex polygons, all in whole numbers.
//
//   BoxSweep sweep(box, motion);
//   sweep.meet(form, origin, OneWay::no, 7);
//   if (sweep.hit()) ... sweep.normal(), sweep.what()
//
// Method: the box is inside a polygon while it is behind all its lines and within the box around it; each is entered and
// left at a moment that is a fraction, and they are clipped as in M. Cyrus and J. Beck, "Generalized two- and
// three-dimensional clipping", 1978.
#pragma once

#include "moment.hpp"
#include "vole/physics/cell_form.hpp"

namespace vole {

class BoxSweep {
 public:
  BoxSweep(const LatticeBox& box, LatticePoint motion) : box_(box), motion_(motion) {}

  const LatticeBox& box() const { return box_; }
  LatticePoint motion() const { return motion_; }

  // Whether the box enters the form sooner than all before; then that is the hit. What it is inside of from the start does
  // not hold it.
  bool meet(const LatticeForm& form, LatticePoint origin, OneWay one_way);

  bool hit() const { return hit_; }
  // When something was hit; else after the whole motion.
  const Moment& when() const { return when_; }
  // The line over which it was entered.
  const LatticeLine& line() const { return line_; }
  // Where the box's corner is at that moment: rounded so that it is outside of the line.
  LatticePoint stop() const;

 private:
  LatticeBox box_;
  LatticePoint motion_;
  Moment when_{1, 1};
  LatticeLine line_;
  bool hit_ = false;
};

// Whether a form can hold a box at all: the box is outside of it, and of a one-way form on the side that holds.
bool may_hold(const LatticeForm& form, LatticePoint origin, OneWay one_way, const LatticeBox& box);

}  // namespace vole
