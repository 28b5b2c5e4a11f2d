// How all that is in a layer of a level is shown.
#pragma once

#include "vole/base/colour.hpp"
#include "vole/base/describe.hpp"

namespace vole {

struct LayerLook {
  bool visible = true;
  Colour tint = white;
  float opacity = 1;

  friend bool operator==(const LayerLook&, const LayerLook&) = default;
};
template <class V>
void describe(V& v, LayerLook& look) {
  v("visible", look.visible);
  v("tint", look.tint);
  v("opacity", look.opacity, within(0, 1));
}

}  // namespace vole
