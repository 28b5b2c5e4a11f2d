// A place in a level's file, at which a thing comes to life: see level.hpp.
#pragma once

#include <string>

#include "vole/base/node.hpp"
#include "vole/base/vec.hpp"

namespace vole {

struct LevelPlace {
  std::string kind;
  Vec2 at{0, 0};
  bool faces_left = false;
  std::string name;  // may be empty
  Node overrides;    // a table of components to put over the kind's
  FilePosition where;
  int scatter = -1;  // index of what scattered it; -1: it was placed
  bool stays = false;
};

}  // namespace vole
