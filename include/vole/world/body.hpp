// What of a thing collides. In kinds.toml:
//
//   body = { size = [10, 10], offset = [0, -2] }
//   body = { size = [24, 6], category = "boards", one_way = "up" }
//
// Other shapes than a box: see shapes.hpp. Who is held by whom: see categories.hpp.
#pragma once

#include <string>

#include "vole/base/describe.hpp"
#include "vole/base/rect.hpp"
#include "vole/physics/body_id.hpp"
#include "vole/physics/cell_form.hpp"

namespace vole {

class OfKind;

// A box whose bottom middle is on the pose's position, whatever the sprite shows.
struct Body {
  Vec2 size{12, 12};
  Vec2 offset{0, 0};  // of the middle of the box's bottom from the position
  Located<std::string> category{"plain", {}};
  BodyUse use = BodyUse::solid;  // may change at any time
  OneWay one_way = OneWay::no;   // the side on which it holds; for platforms
  bool shadow = false;           // lamps (lamp.hpp) do not shine through it

  Rect box(Vec2 at) const { return {{at.x + offset.x - size.x / 2, at.y + offset.y - size.y}, size}; }
};
template <class V>
void describe(V& v, Body& body) {
  v("size", body.size, within(1, 4096));
  v("offset", body.offset, within(-4096, 4096));
  v("category", body.category);
  v("use", body.use);
  v("one_way", body.one_way);
  v("shadow", body.shadow);
}

void need(Body& body, const OfKind& kind);

}  // namespace vole
