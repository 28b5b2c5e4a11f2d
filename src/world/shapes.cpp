#include "vole/world/shapes.hpp"

namespace vole {

Shape shape_of(const ShapeText& text) {
  const bool at = text.at.has_value(), size = text.size.has_value(), radius = text.radius.has_value();
  const bool ends = text.from || text.to, corners = text.corners.has_value();
  if (corners && !at && !size && !radius && !ends) return Shape::polygon(*text.corners);
  if (text.from && text.to && radius && !at && !size && !corners)
    return Shape::capsule(*text.from, *text.to, *text.radius);
  if (at && size && !radius && !ends && !corners) return Shape::box({*text.at, *text.size});
  if (at && radius && !size && !ends && !corners) return Shape::circle(*text.at, *text.radius);
  throw Error(
      FilePosition{}, "this is no shape",
      "a box has at and size, a circle at and radius, a capsule from, to and radius, a polygon corners");
}

}  // namespace vole
