#include "vole/asset/clip_set.hpp"

#include <algorithm>

namespace vole {

int ClipSet::find(std::string_view key) const {
  const auto found =
      std::find_if(members.begin(), members.end(), [key](const Member& member) { return member.key == key; });
  return found == members.end() ? -1 : static_cast<int>(found - members.begin());
}

int ClipSet::nearest(Vec2 towards, Direction last) const {
  if (towards == Vec2{0, 0}) towards = unit_of(last);
  const auto along = [&](const Member& member) {
    const Vec2 unit = unit_of(member.direction);
    return towards.x * unit.x + towards.y * unit.y;
  };
  int best = 0;
  for (int i = 1; i < static_cast<int>(members.size()); ++i) {
    const Member& member = members[static_cast<std::size_t>(i)];
    const float by = along(member) - along(members[static_cast<std::size_t>(best)]);
    if (by > 0 || (by == 0 && member.direction == last)) best = i;
  }
  return best;
}

}  // namespace vole
