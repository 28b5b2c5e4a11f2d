// A named area of the level, which things meet as they meet each other (see level.hpp and cues.hpp).
#pragma once

#include <string>

#include "vole/base/describe.hpp"

namespace vole {

struct Zone {
  std::string name;
};
template <class V>
void describe(V& v, Zone& zone) {
  v.state("name", zone.name);
}

class World;

// Makes the zones of the world's level those that its file has: what was there and still is stays the thing that it is.
void put_zones(World& world);

}  // namespace vole
