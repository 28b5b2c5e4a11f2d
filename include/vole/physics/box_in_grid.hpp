// Moving a box through a grid of solid cells and slopes along a straight line: it stops at the first thing it meets,
// whatever its speed, and never catches on the seams between cells.
//
//   Moved moved = move_box(grid, body, velocity * seconds);
//   body.at = moved.at;
//   if (moved.below) velocity.y = 0;
//
// Method: the cells on the way are looked at in order, and the moments at which edges are passed are compared as fractions of
// whole numbers, so no rounding decides what is hit.
#pragma once

#include "vole/physics/solid_grid.hpp"

namespace vole {

// Where a box that moves in a straight line ends.
struct Contact {
  Vec2 at{0, 0};      // the box's corner where it stopped, on the lattice
  bool hit = false;   // false: it went the whole way
  Vec2 normal{0, 0};  // of length 1, from what was hit towards the box
  IVec2 cell{0, 0};   // a cell that was hit
  Vec2 rest{0, 0};    // the motion that was left
};

// Moves the box by `motion` (pixels) until it meets a solid cell. Corner, size and motion are taken to the
// nearest lattice point. A box that starts inside solid cells is held only by cells it newly enters, so it
// can get out.
Contact sweep_box(const SolidGrid& grid, const Rect& box, Vec2 motion);

// Where a box ends that slides along what it meets.
struct Moved {
  Vec2 at{0, 0};
  bool left = false;  // what was touched on the way, by side of the box
  bool right = false;
  bool above = false;
  bool below = false;
};

// Like sweep_box, but after a contact the rest of the motion goes on along the surface.
Moved move_box(const SolidGrid& grid, const Rect& box, Vec2 motion);

// Whether two boxes that move in straight lines, in the same time, overlap at some moment of it.
bool boxes_meet(const Rect& a, Vec2 a_motion, const Rect& b, Vec2 b_motion);

}  // namespace vole
