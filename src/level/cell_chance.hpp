// Chance that depends on a seed and a cell alone, so that a change elsewhere changes nothing here.
#pragma once

#include <cstddef>
#include <cstdint>

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

// The place of the thing, of several with weights, that a number comes to.
template <class Things, class Weight>
std::size_t choose_by_weight(const Things& things, std::uint64_t chance, const Weight& weight) {
  double total = 0;
  for (const auto& each : things) total += weight(each);
  constexpr double of_53_bits = 9007199254740992.0;
  double left = static_cast<double>(chance >> 11) / of_53_bits * total;
  std::size_t last = 0;
  for (std::size_t i = 0; i < things.size(); ++i) {
    const double its = weight(things[i]);
    if (!(its > 0)) continue;
    if (left < its) return i;
    left -= its;
    last = i;
  }
  return last;
}

}  // namespace vole
