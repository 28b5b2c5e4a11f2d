// Ways over ledges, for all minds of a scene.
#pragma once

#include <memory>

#include "ledge_ways.hpp"
#include "scene/level_watch.hpp"
#include "scene/recently_used.hpp"

namespace vole {

// Found once for all whose bodies and movers are the same, and kept while the level stays as it is. What is known here is no state:
// it is found anew wherever it is missing, and counts for a mind from the same tick on.
class MindLedges {
 public:
  // nullptr while it has not looked around for long enough, in a level without end, and in one that is too large.
  const LedgeWays* ways(const SidePlay& play, const SidePlay::State& thing,
                        std::span<const std::uint8_t> tile_categories, LedgeGoing& going);

 private:
  LevelWatch watch_;
  CollisionWorld tiles_;
  // More kinds of walkers than a level has, unless code gives each its own numbers; then those that think least often wait.
  RecentlyUsed<std::uint32_t, std::unique_ptr<LedgeWays>> known_{64};
};

}  // namespace vole
