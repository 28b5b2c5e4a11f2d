#include "vole/world/path_mover.hpp"

#include <algorithm>

#include "vole/level/level_path.hpp"

namespace vole {

void take_path(PathMover& mover, const LevelPath& path) {
  mover.points.clear();
  for (const Vec2 point : path.line()) mover.points.push_back(point - mover.start);
  // The first point of a closed one stands at its end once more.
  if (path.closed()) {
    mover.points.pop_back();
    if (mover.end == PathEnd::back) mover.end = PathEnd::around;
  }
  mover.next = std::min(mover.next, static_cast<std::uint32_t>(mover.points.size()) - 1);
}

}  // namespace vole
