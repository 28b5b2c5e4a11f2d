// A place in a level's file, at which a thing comes to life: see level.hpp.
#pragma once

#include <string>

#include "vole/base/toml_value.hpp"
#include "vole/base/vec.hpp"

namespace vole {

struct LevelPlace {
  std::string kind;
  Vec2 at{0, 0};
  bool mirrored = false;
  std::string name;     // may be empty
  TomlValue overrides;  // a table of components to put over the kind's
  FilePosition where;
  int scatter = -1;  // index of what scattered it; -1: it was placed
  bool keep = false;
};

}  // namespace vole
