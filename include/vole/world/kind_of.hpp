// Where a thing comes from: its kind, and its place in the file of the level, or of a piece that was put into it.
#pragma once

#include <cstdint>
#include <string>

#include "vole/base/describe.hpp"

namespace vole {

struct KindOf {
  std::string name;
};
template <class V>
void describe(V& v, KindOf& kind) {
  v.state("name", kind.name);
}

struct FromPlace {
  std::uint32_t place = 0;  // index among its places
  std::uint32_t piece = 0;  // its number; 0: of the level itself
  bool keep = false;        // also when the piece leaves
};
template <class V>
void describe(V& v, FromPlace& from) {
  v.state("place", from.place);
  v.state("piece", from.piece);
  v.state("keep", from.keep);
}

}  // namespace vole
