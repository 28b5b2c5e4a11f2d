// What a world keeps of things to come: named moments, values on their way, and names that were told and not
// heard yet.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/base/easing.hpp"
#include "vole/base/entity.hpp"
#include "vole/base/vec.hpp"

namespace vole {

// Tells a name when its time has come: see Stage::after.
struct Timer {
  std::string name;
  Entity entity;  // that it is about; none: the scene
  std::int64_t ticks_left = 0;
};
template <class V>
void describe(V& v, Timer& timer) {
  v.state("name", timer.name);
  v.state("entity", timer.entity);
  v.state("ticks_left", timer.ticks_left, within(0, most_ticks));
}

// A name that was told, until its cue hears it.
struct Told {
  std::string name;
  Entity entity;
};
template <class V>
void describe(V& v, Told& told) {
  v.state("name", told.name);
  v.state("entity", told.entity);
}

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
