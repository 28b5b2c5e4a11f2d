// A way from one level to another within a scene: Stage::go_to_level.
#pragma once

#include <array>
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/base/entity.hpp"

namespace vole {

// What becomes of the level that is left.
enum class LeftBehind : std::uint8_t {
  kept,      // as it is, for when the scene comes back
  forgotten  // it begins anew then
};
constexpr auto enum_names(LeftBehind) {
  return std::array<std::string_view, 2>{"kept", "forgotten"};
}

struct LevelGoing {
  std::string level, place;
  std::vector<Entity> travellers;
  LeftBehind left = LeftBehind::kept;
};
template <class V>
void describe(V& v, LevelGoing& going) {
  v.state("level", going.level);
  v.state("place", going.place);
  v.state("travellers", going.travellers);
  v.state("left", going.left);
}

}  // namespace vole
