// The file in which the names that a thing uses are looked for: that of the piece that it came with, or of the level.
#pragma once

#include "vole/base/entity.hpp"
#include "vole/base/vec.hpp"

namespace vole {

class Level;
class World;

struct FileHere {
  const Level* file = nullptr;  // none without a level, and when the piece is gone
  Vec2 offset{0, 0};            // what is added to a position in it, to have it where it is now
};
FileHere file_here(const World& world, Entity thing);

}  // namespace vole
