// What happens to a thing at the edges of the level. In kinds.toml:
//
//   level_edge = { sides = "wrap" }                            # out on the right and in on the left
//   level_edge = { sides = "hold", bottom = "removed", tells = "fell" }
//
// What the level's file says to be solid beyond it ([sides]) is a wall, whatever this says. While it crosses,
// a thing is shown on both sides. A level without end has no edges.
#pragma once

#include <array>
#include <cstdint>
#include <string>
#include <string_view>

#include "vole/base/describe.hpp"

namespace vole {

enum class AtEdge : std::uint8_t {
  open,    // it goes on, and out
  hold,    // all of its body stays in the level
  wrap,    // its middle comes in again on the other side; where there is a wall, it is held
  removed  // once all of it is outside
};
constexpr auto enum_names(AtEdge) {
  return std::array<std::string_view, 4>{"open", "hold", "wrap", "removed"};
}

struct LevelEdge {
  AtEdge sides = AtEdge::open;  // left and right
  AtEdge top = AtEdge::open;
  AtEdge bottom = AtEdge::open;
  std::string tells;  // a cue, about the thing, when all of it is outside

  bool outside = false;

  bool wraps_across() const { return sides == AtEdge::wrap; }
  // The other of the two need not say so.
  bool wraps_down() const { return top == AtEdge::wrap || bottom == AtEdge::wrap; }
};
template <class V>
void describe(V& v, LevelEdge& edge) {
  v("sides", edge.sides);
  v("top", edge.top);
  v("bottom", edge.bottom);
  v("tells", edge.tells);
  v.state("outside", edge.outside);
}

}  // namespace vole
