// How much room a level has, and where its own part lies in it at first.
#pragma once

#include "vole/level/level.hpp"

namespace vole {

IVec2 room_of(const Level& level);
// Of an endless one, in cells.
IVec2 first_origin(const Level& level);

inline bool same(const Paint& a, const Paint& b) {
  return a.material == b.material && (a.material >= 0 || a.cell == b.cell);
}

}  // namespace vole
