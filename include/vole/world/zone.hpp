// A named area of the level, which things meet as they meet each other (see level.hpp and cues.hpp).
#pragma once

#include <cstdint>
#include <string>

#include "vole/base/describe.hpp"

namespace vole {

struct Zone {
  std::string name;
  std::uint32_t piece = 0;  // its number; 0: of the level itself
};
template <class V>
void describe(V& v, Zone& zone) {
  v.state("name", zone.name);
  v.state("piece", zone.piece);
}

class World;

// Makes the zones of the world's level, or of a piece in it, those that its file has: what was there and still is stays the thing
// that it is.
void put_zones(World& world, std::uint32_t piece = 0);
void remove_zones(World& world, std::uint32_t piece);

}  // namespace vole
