// What a world keeps of names: those that are told when their time has come, and those that were told and not heard yet.
#pragma once

#include <cstdint>
#include <string>

#include "vole/base/describe.hpp"
#include "vole/base/entity.hpp"

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

}  // namespace vole
