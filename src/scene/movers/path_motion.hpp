// Going along the points of a along_path.
#pragma once

#include "vole/world/along_path.hpp"

namespace vole {

// Where it is after so many seconds, from where it is. At most once around: a path without length comes to an end.
Vec2 along_path(AlongPath& path, Vec2 at, float seconds);

}  // namespace vole
