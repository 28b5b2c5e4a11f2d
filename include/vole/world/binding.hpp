// What state names and the program points at: made when a thing comes to life, when files change, and when a state is
// restored. Nothing here is state.
#pragma once

#include "vole/world/component_types.hpp"

namespace vole {

class Catalog;
class LevelNow;
struct Sprite;
struct Track;

// Where names are looked up. All of it outlives what is bound.
struct Binding {
  Catalog& catalog;
  const ComponentTypes& types;
  const std::vector<const Track*>& own_tracks;
  UnknownComponents unknown = UnknownComponents::report;  // the game's own, where they are not known
};

// Finds the sprite's sheet, and everything else that its names mean; what it plays goes on, by its names, in
// the newest version of the sheet. Throws Error for a name that is not there.
void bind_sprite(Sprite& sprite, const Binding& binding);
// The index of its layer in the level; throws Error with the nearest name. 0 without a level.
std::size_t layer_of(const Sprite& sprite, const LevelNow& level);

}  // namespace vole
