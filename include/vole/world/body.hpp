// What of a thing collides. In kinds.toml:
//
//   body = { size = [10, 10], offset = [0, -2] }
#pragma once

#include "vole/base/describe.hpp"
#include "vole/base/rect.hpp"

namespace vole {

// A box whose bottom middle is on the pose's position, whatever the sprite shows.
struct Body {
  Vec2 size{12, 12};
  Vec2 offset{0, 0};  // of the middle of the box's bottom from the position

  Rect box(Vec2 at) const { return {{at.x + offset.x - size.x / 2, at.y + offset.y - size.y}, size}; }
};
template <class V>
void describe(V& v, Body& body) {
  v("size", body.size, within(1, 4096));
  v("offset", body.offset, within(-4096, 4096));
}

}  // namespace vole
