// A thing that touches tiles which a cue is about: what meetings with tiles are told from.
#pragma once

#include <cstdint>

#include "vole/base/describe.hpp"
#include "vole/base/entity.hpp"

namespace vole {

struct MetTiles {
  Entity thing;
  std::uint64_t tiles = 0;  // a checksum of what the cue says of them

  friend bool operator==(const MetTiles&, const MetTiles&) = default;
};
template <class V>
void describe(V& v, MetTiles& met) {
  v.state("thing", met.thing);
  v.state("tiles", met.tiles);
}

}  // namespace vole
