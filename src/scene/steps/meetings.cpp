// Calls the cues for bodies that overlap, in the order of the cues and then of the things; those for overlaps that end
// come last.
#include <fmt/format.h>

#include <algorithm>
#include <tuple>

#include "../cue_call.hpp"
#include "vole/world/body.hpp"

namespace vole {
namespace {

using When = Cues::OverlapCue::When;

Overlap overlap_of(Entity a, Entity b) {
  return a.index < b.index ? Overlap{a, b} : Overlap{b, a};
}

bool comes_before(const Overlap& a, const Overlap& b) {
  return std::tuple(a.first.index, a.second.index) < std::tuple(b.first.index, b.second.index);
}

bool holds(const std::vector<Overlap>& overlaps, const Overlap& overlap) {
  const auto found = std::lower_bound(overlaps.begin(), overlaps.end(), overlap, comes_before);
  return found != overlaps.end() && *found == overlap;
}

void call(const Cues::OverlapCue& cue, Tick& tick, Entity a, Entity b) {
  if (tick.stage.removed(a) || tick.stage.removed(b)) return;
  const auto when = [&] {
    constexpr std::string_view words[] = {"began to overlap", "overlapped", "no longer overlapped"};
    return fmt::format("when {} {} {}", described_thing(tick.stage, a),
                       words[static_cast<std::size_t>(cue.when)], described_thing(tick.stage, b));
  };
  call_cue(when, [&] { cue.handler(tick.stage, a, b); });
}

// Notes what overlaps; only a cue for what no longer does is not called yet.
void find_overlaps(const Cues::OverlapCue& cue, Tick& tick) {
  for (const Meeter& a : tick.scratch.meeters) {
    if (*a.kind != cue.kind) continue;
    for (const Meeter& b : tick.scratch.meeters) {
      if (*b.kind != cue.other || a.entity == b.entity || !a.box.overlaps(b.box)) continue;
      const Overlap overlap = overlap_of(a.entity, b.entity);
      tick.scratch.overlaps.push_back(overlap);
      const bool begins = !holds(tick.world.overlaps, overlap);
      if (cue.when == When::lasts || (cue.when == When::begins && begins))
        call(cue, tick, a.entity, b.entity);
    }
  }
}

void tell_ends(const Cues::OverlapCue& cue, Tick& tick, const std::vector<Overlap>& now) {
  const auto is = [&tick](Entity entity, const std::string& kind) {
    return tick.stage.kind_of(entity) == kind;
  };
  for (const Overlap& overlap : tick.world.overlaps) {
    if (holds(now, overlap)) continue;
    const auto [first, second] = overlap;
    if (is(first, cue.kind) && is(second, cue.other)) call(cue, tick, first, second);
    if (is(second, cue.kind) && is(first, cue.other)) call(cue, tick, second, first);
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
  const std::vector<Cues::OverlapCue>& cues = tick.cues.overlaps();
  for (std::size_t i = 0; i < cues.size(); ++i) find_overlaps(cues[i], tick);
  std::vector<Overlap>& now = tick.scratch.overlaps;
  std::sort(now.begin(), now.end(), comes_before);
  now.erase(std::unique(now.begin(), now.end()), now.end());
  for (std::size_t i = 0; i < cues.size(); ++i)
    if (cues[i].when == When::ends) tell_ends(cues[i], tick, now);
  tick.world.overlaps = now;
}

}  // namespace vole
