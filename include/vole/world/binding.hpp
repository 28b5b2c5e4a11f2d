// Where what a state names is looked up: see component_hooks.hpp for when. Nothing here is state.
#pragma once

#include "vole/world/component_types.hpp"

namespace vole {

class Catalog;
struct Track;

// Where names are looked up. All of it outlives what is bound.
struct Binding {
  Catalog& catalog;
  const ComponentTypes& types;
  const std::vector<const Track*>& own_tracks;
  UnknownComponents unknown = UnknownComponents::report;  // the game's own, where they are not known
};

}  // namespace vole
