// How wide the numbers of a sweep become, in bits without the sign, for the largest that are let in: shapes within Shape::furthest of their
// position, and positions that to_subpixels() brings within furthest_pixels. Products of two columns stay below 63 bits, the width of
// int64; where three come together it takes Wide (moment.hpp), whose width is 127.
#pragma once

#include "vole/physics/shape.hpp"
#include "vole/physics/subpixel.hpp"

namespace vole::widths {

constexpr int bits_of(double most) {
  int bits = 0;
  for (double reach = 1; reach <= most; reach *= 2) ++bits;
  return bits;
}

// From one corner of a shape to another, in subpixels: what slanted lines consist of.
constexpr int edge = bits_of(2.0 * static_cast<double>(Shape::furthest) * subpixels);
// Where a side of a shape can be; and how far one is from another, or goes in a motion.
constexpr int side =
    bits_of(furthest_pixels * subpixels + static_cast<double>(Shape::furthest) * subpixels) + 1;
constexpr int way = side + 1;
// LatticeLine::at, gap() and along(): sums of up to four products of the two.
constexpr int gap = edge + way + 2;
static_assert(gap < 63);
// How much one line falls beside another: BoxMotion::consider.
constexpr int fall = 2 * edge + 1;
static_assert(fall < 63);
// How far a line can be followed, before it is divided; and what moments are compared by.
static_assert(gap + edge < 127);
static_assert(2 * gap < 127);
// Moment::of: a share of a way.
static_assert(way + gap < 127);

}  // namespace vole::widths
