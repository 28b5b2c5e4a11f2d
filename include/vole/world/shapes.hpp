// What a body consists of, where that is no box. In kinds.toml:
//
//   shapes = [{ at = [0, -6], radius = 6 }]                                  # a circle
//   shapes = [{ from = [0, -4], to = [0, -14], radius = 4 }]                 # a capsule
//   shapes = [{ corners = [[-8, 0], [8, -8], [8, 0]] }]                      # a convex polygon, 3 to 16 corners
//   shapes = [{ at = [-5, -12], size = [10, 12] }, { at = [6, -3], radius = 3 }]
//
// All in pixels from the thing's position, whatever the sprite shows. Category and use are the body's.
#pragma once

#include <memory>
#include <optional>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/physics/collision_world.hpp"

namespace vole {

struct ShapeText {
  std::optional<Vec2> at, size, from, to;
  std::optional<float> radius;
  std::optional<std::vector<Vec2>> corners;

  friend bool operator==(const ShapeText&, const ShapeText&) = default;
};
template <class V>
void describe(V& v, ShapeText& shape) {
  const FieldRule pixels = within(-4096, 4096);
  v("at", shape.at, pixels);
  v("size", shape.size, within(0, 4096));
  v("from", shape.from, pixels);
  v("to", shape.to, pixels);
  v("radius", shape.radius, within(0, 4096));
  v("corners", shape.corners, items(Shape::most_corners));
}

// Throws Error for what is none.
Shape shape_of(const ShapeText& text);

struct Shapes {
  std::vector<Located<ShapeText>> list;
};
template <class V>
void describe(V& v, Shapes& shapes) {
  v("list", shapes.list);
}
inline constexpr std::size_t most_shapes = 32;  // of a body
inline OnlyField<std::vector<Located<ShapeText>>> one_field(Shapes& shapes) {
  return {shapes.list, items(most_shapes)};
}

}  // namespace vole
