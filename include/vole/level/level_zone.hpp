// A named part of a level, a rectangle or a polygon: see level.hpp.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "vole/base/error.hpp"
#include "vole/base/rect.hpp"

namespace vole {

struct LevelZone {
  std::string name;
  Rect area;                  // around it
  std::vector<Vec2> corners;  // of a polygon; empty for a rectangle
  FilePosition where;
  std::optional<float> darkness;  // in it
  int fade = 0;                   // pixels

  bool contains(Vec2 point) const;
  LevelZone moved_by(Vec2 by) const;
};

}  // namespace vole
