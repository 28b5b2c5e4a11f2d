// Chance that depends on a seed and a cell alone, so that a change elsewhere changes nothing here.
#pragma once

#include "vole/base/hash.hpp"
#include "vole/base/random.hpp"

namespace vole {

inline std::uint64_t cell_chance(std::uint64_t seed, std::int64_t x, std::int64_t y) {
  Hash hash;
  hash.add(seed);
  hash.add(x);
  hash.add(y);
  return Random(hash.value()).next_wide();
}

}  // namespace vole
