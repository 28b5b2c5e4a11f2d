// What was told last of the values that a scene watches (scene/watched.hpp): state, so that a change is told once, wherever a state is
// restored.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "vole/base/describe.hpp"

namespace vole {

struct WatchedThing {
  Entity thing;
  std::string value;  // as TOML
};
template <class V>
void describe(V& v, WatchedThing& watched) {
  v.state("thing", watched.thing);
  v.state("value", watched.value);
}

struct WatchedState {
  std::string value;                 // as TOML; of one value
  std::vector<WatchedThing> things;  // of a component's field: of each thing that has it
  std::int64_t changed = -1;         // the scene's tick of the last change; -1: none
};
template <class V>
void describe(V& v, WatchedState& watched) {
  v.state("value", watched.value);
  v.state("things", watched.things);
  v.state("changed", watched.changed);
}

}  // namespace vole
