// Ways over ledges, for all minds of a scene.
#pragma once

#include <list>
#include <memory>

#include "ledge_ways.hpp"

namespace vole {

// Found once for all whose bodies and movers are the same, and kept while the level stays as it is. What is known here is no state:
// it is found anew wherever it is missing, and counts for a mind from the same tick on.
class MindLedges {
 public:
  // nullptr while it has not looked around for long enough, in a level without end, and in one that is too large.
  const LedgeWays* ways(const SidePlay& play, const SidePlay::State& thing,
                        std::span<const std::uint8_t> tile_categories, LedgeGoing& going);

 private:
  struct Known {
    std::uint32_t key = 0;
    std::unique_ptr<LedgeWays> ways;
  };
  void forget_old(const LevelNow& level);
  LedgeWays& known(std::uint32_t key, const LevelNow& level, const LedgeWalker& walker);

  std::shared_ptr<const Level> of_;
  std::uint64_t changes_ = 0;
  std::uint64_t level_key_ = 0;
  CollisionWorld tiles_;
  std::list<Known> known_;  // the one that was asked for last comes first
};

}  // namespace vole
