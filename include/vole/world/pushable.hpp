// Gives way to a mover that walks into it, as far as there is room. In kinds.toml:
//
//   [crate]
//   body = { size = [14, 14] }
//   pushable = { speed = 40 }              # and side_mover = {} where it should fall
//
// To a grid_mover it gives way by a whole cell: see grid_mover.hpp.
#pragma once

#include "vole/base/describe.hpp"

namespace vole {

struct Pushable {
  float speed = 40;  // pixels a second, however strong who pushes is
};
template <class V>
void describe(V& v, Pushable& pushable) {
  v("speed", pushable.speed, within(0, 100000));
}

}  // namespace vole
