// Going along the points of a path_mover.
#pragma once

#include "vole/world/path_mover.hpp"

namespace vole {

// Where it is after so many seconds, from where it is. At most once around: a path without length comes to an end.
Vec2 along_path(PathMover& path, Vec2 at, float seconds);

}  // namespace vole
