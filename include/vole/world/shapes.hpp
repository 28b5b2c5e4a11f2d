// What a body consists of, where that is no box. In kinds.toml:
//
//   shapes = [{ at = [0, -6], radius = 6 }]                                  # a circle
//   shapes = [{ from = [0, -4], to = [0, -14], radius = 4 }]                 # a capsule
//   shapes = [{ corners = [[-8, 0], [8, -8], [8, 0]] }]                      # a convex polygon, 3 to 16 corners
//   shapes = [{ outline = "rock", error = 1 }]                               # what is opaque of a sheet's picture
//   shapes = [
//     { area = [-5, -12, 10, 12] },
//     { name = "claw", at = [9, -5], radius = 4, use = "sensor", mirrors = true },
//   ]
//
// All in pixels from the thing's position, whatever the sprite shows. The category is the body's; the use too, or less: of a
// body that is off all shapes are off.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/base/rect.hpp"
#include "vole/physics/body_id.hpp"

namespace vole {

class OfKind;

class Catalog;
class Shape;

struct ShapeText {
  std::string name;          // for cues, switches and code; may be empty
  std::optional<Rect> area;  // a box
  std::optional<Vec2> at, from, to;
  std::optional<float> radius;
  std::optional<std::vector<Vec2>> corners;
  std::optional<Located<std::string>> outline;  // a sheet: of its first frame, its pivot on the position,
  Located<std::string> frame, clip;  // or of the frame of this name or number, or of this clip's first
  float error = 1;                   // how far the outline may be off, in pixels
  BodyUse use = BodyUse::solid;      // may change at any time
  bool mirrors = false;  // with the thing: as it is written it faces right; for what does not block

  // Whether it has the same form: the name and the use may differ.
  bool same_form(const ShapeText& other) const;
};
template <class V>
void describe(V& v, ShapeText& shape) {
  const FieldRule pixels = within(-4096, 4096);
  v("name", shape.name);
  v("area", shape.area, pixels);
  v("at", shape.at, pixels);
  v("from", shape.from, pixels);
  v("to", shape.to, pixels);
  v("radius", shape.radius, within(0, 4096));
  v("corners", shape.corners, items(16));
  v("outline", shape.outline);
  v("frame", shape.frame);
  v("clip", shape.clip);
  v("error", shape.error, within(0.25, 64));
  v("use", shape.use);
  v("mirrors", shape.mirrors);
}

struct Shapes {
  std::vector<Located<ShapeText>> list;

  // The place in the list of the shape of this name; none: the length of the list.
  std::size_t find(std::string_view name) const;
  // Of those that have one.
  std::vector<std::string> names() const;
  // Throws Error with the nearest name.
  ShapeText& named(std::string_view name);
};
template <class V>
void describe(V& v, Shapes& shapes) {
  v("list", shapes.list);
}
inline OnlyField<std::vector<Located<ShapeText>>> one_field(Shapes& shapes) {
  return {shapes.list, items(most_body_shapes)};
}

// What one of them comes to: of an outline several. Throws Error at `shape` for what is none.
std::vector<Shape> shapes_of(const Located<ShapeText>& shape, Catalog& catalog);
// Of all of them; throws Error at the first for more than 32 in all.
std::vector<Shape> shapes_of(const Shapes& shapes, Catalog& catalog);

void need(Shapes& shapes, const OfKind& kind);

}  // namespace vole
