// Where a thing comes from: its kind, and its place in the level's file.
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
  std::uint32_t place = 0;  // index among the level's places
};
template <class V>
void describe(V& v, FromPlace& from) {
  v.state("place", from.place);
}

}  // namespace vole
