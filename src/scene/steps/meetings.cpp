// Calls the cues for bodies that begin to overlap, in the order of the cues and then of the things.
#include <algorithm>
#include <tuple>

#include "../tick.hpp"
#include "vole/world/body.hpp"

namespace vole {
namespace {

Overlap overlap_of(Entity a, Entity b) {
  return a.index < b.index ? Overlap{a, b} : Overlap{b, a};
}

bool comes_before(const Overlap& a, const Overlap& b) {
  return std::tuple(a.first.index, a.second.index) < std::tuple(b.first.index, b.second.index);
}

void tell_meeting(const Cues::Meeting& cue, Tick& tick) {
  const std::vector<Overlap>& before = tick.world.overlaps;
  for (const Meeter& a : tick.scratch.meeters) {
    if (*a.kind != cue.kind) continue;
    for (const Meeter& b : tick.scratch.meeters) {
      if (*b.kind != cue.other || a.entity == b.entity || !a.box.overlaps(b.box)) continue;
      const Overlap overlap = overlap_of(a.entity, b.entity);
      tick.scratch.overlaps.push_back(overlap);
      const auto found = std::lower_bound(before.begin(), before.end(), overlap, comes_before);
      const bool begins = found == before.end() || !(*found == overlap);
      if (begins && !tick.stage.removed(a.entity) && !tick.stage.removed(b.entity))
        cue.handler(tick.stage, a.entity, b.entity);
    }
  }
}

}  // namespace

void tell_meetings(Tick& tick) {
  tick.scratch.meeters.clear();
  tick.scratch.overlaps.clear();
  tick.world.entities.visit<KindOf, Body, Pose>(
      [&tick](Entity entity, const KindOf& kind, const Body& body, const Pose& pose) {
        if (!tick.stage.removed(entity))
          tick.scratch.meeters.push_back({entity, &kind.name, body.box(pose.at)});
      });
  for (std::size_t i = 0; i < tick.cues.meetings().size(); ++i) tell_meeting(tick.cues.meetings()[i], tick);
  std::vector<Overlap>& now = tick.scratch.overlaps;
  std::sort(now.begin(), now.end(), comes_before);
  now.erase(std::unique(now.begin(), now.end()), now.end());
  tick.world.overlaps = now;
}

}  // namespace vole
