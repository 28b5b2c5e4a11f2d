// Two things, or shapes of theirs, that overlap: what meetings and partings are told from.
#pragma once

#include <cstdint>

#include "vole/base/describe.hpp"
#include "vole/base/entity.hpp"

namespace vole {

inline constexpr std::uint32_t any_shape = 0xffffffffu;
// Two things whose bodies overlap, the one with the smaller index first; or shapes of theirs, by their places.
struct Overlap {
  Entity first, second;
  std::uint32_t first_shape = any_shape, second_shape = any_shape;

  friend bool operator==(const Overlap&, const Overlap&) = default;
};
template <class V>
void describe(V& v, Overlap& overlap) {
  v.state("first", overlap.first);
  v.state("second", overlap.second);
  v.state("first_shape", overlap.first_shape);
  v.state("second_shape", overlap.second_shape);
}

}  // namespace vole
