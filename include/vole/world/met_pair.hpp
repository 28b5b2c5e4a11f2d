// Two things, or shapes of theirs, that overlap: what meetings and partings are told from.
#pragma once

#include <cstdint>

#include "vole/base/describe.hpp"
#include "vole/base/entity.hpp"

namespace vole {

inline constexpr std::uint32_t any_shape = 0xffffffffu;
// Two things whose bodies pair, the one with the smaller index first; or shapes of theirs, by their places.
struct MetPair {
  Entity first, second;
  std::uint32_t first_shape = any_shape, second_shape = any_shape;

  friend bool operator==(const MetPair&, const MetPair&) = default;
};
template <class V>
void describe(V& v, MetPair& pair) {
  v.state("first", pair.first);
  v.state("second", pair.second);
  v.state("first_shape", pair.first_shape);
  v.state("second_shape", pair.second_shape);
}

}  // namespace vole
