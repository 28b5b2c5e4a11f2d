// The outline of what is opaque in a picture, cut into convex parts: what a body can be made of.
//
//   const OutlineParts parts = cut_outline(sheet.frames[0], 1);     // each point at most a pixel off
//
// Pixels count as opaque from half their full opacity on. The border between them and the others is followed, simplified
// (D. Douglas and T. Peucker, 1973), cut into triangles by their ears (G. Meisters, 1975), and these are joined where they
// stay convex (S. Hertel and K. Mehlhorn, 1983). All of it in whole numbers, of quarters of a pixel.
#pragma once

#include <vector>

#include "vole/asset/picture.hpp"
#include "vole/base/vec.hpp"

namespace vole {

// Polygons of 3 to 16 corners, in pixels of the frame from its top left, in the direction of a clock's hand. None overlaps
// another; together they are the outline.
using OutlineParts = std::vector<std::vector<Vec2>>;

inline constexpr std::size_t most_part_corners = 16;
inline constexpr float least_outline_error = 0.25f;

// `error`: how far the outline may be from the border of what is opaque, in pixels; least_outline_error at least. Where
// pixels share a corner only, that is cut by a quarter of a pixel besides. Islands and holes that are no larger than the
// error are left out. Throws Error when nothing is left, and for an outline of more than 1,000 corners.
OutlineParts cut_outline(const Frame& frame, float error);

// The convex parts of a polygon of one's own, of 3 to 1,000 corners in either direction; its corners go to the nearest quarter
// of a pixel. Throws Error for sides that touch or cross each other, and where nothing is inside.
OutlineParts cut_polygon(const std::vector<Vec2>& corners);

}  // namespace vole
