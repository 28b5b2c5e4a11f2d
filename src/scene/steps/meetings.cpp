// Calls the cues for bodies that overlap, or have on their way through the tick, in the order of the cues and then of the
// things; those for overlaps that end come last.
#include <fmt/format.h>

#include <algorithm>
#include <tuple>

#include "../cue_call.hpp"
#include "vole/physics/sweep.hpp"
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

bool is(std::string_view kind, const Tags* tags, const Which& which) {
  return which.is_tag ? tags && tags->has(which.name) : kind == which.name;
}

bool is(const Meeter& meeter, const Which& which) {
  return is(*meeter.kind, meeter.tags, which);
}

// From where it was to where it is.
Rect swept(const Meeter& meeter) {
  const Rect before = meeter.box.moved_by(-meeter.motion);
  const Vec2 corner{std::min(before.left(), meeter.box.left()), std::min(before.top(), meeter.box.top())};
  const Vec2 end{std::max(before.right(), meeter.box.right()),
                 std::max(before.bottom(), meeter.box.bottom())};
  return {corner, end - corner};
}

bool meet(const Meeter& a, const Meeter& b) {
  return a.box.overlaps(b.box) ||
         boxes_meet(a.box.moved_by(-a.motion), a.motion, b.box.moved_by(-b.motion), b.motion);
}

void find_meeters(Tick& tick) {
  TickScratch& scratch = tick.scratch;
  scratch.meeters.clear();
  scratch.pairs.clear();
  const auto& cues = tick.cues.overlaps();
  const auto is_asked_for = [&cues](const Meeter& meeter) {
    return std::any_of(cues.begin(), cues.end(), [&meeter](const Cues::OverlapCue& cue) {
      return is(meeter, cue.which) || is(meeter, cue.other);
    });
  };
  tick.world.entities.visit<KindOf, Body, Pose>(
      [&](Entity entity, const KindOf& kind, const Body& body, const Pose& pose) {
        const Meeter meeter{entity, &kind.name, tick.world.entities.find<Tags>(entity), body.box(pose.at),
                            pose.at - pose.before};
        if (!tick.stage.removed(entity) && is_asked_for(meeter)) scratch.meeters.push_back(meeter);
      });
  scratch.swept.clear();
  for (const Meeter& meeter : scratch.meeters) scratch.swept.push_back(swept(meeter));
  scratch.near.find(scratch.swept, scratch.pairs);
  const auto pass = [&](const auto& pair) {
    return !meet(scratch.meeters[pair.first], scratch.meeters[pair.second]);
  };
  scratch.pairs.erase(std::remove_if(scratch.pairs.begin(), scratch.pairs.end(), pass), scratch.pairs.end());
}

// Notes what overlaps; only a cue for what no longer does is not called yet.
void find_overlaps(const Cues::OverlapCue& cue, Tick& tick) {
  const std::vector<Meeter>& meeters = tick.scratch.meeters;
  std::vector<Meeting>& meetings = tick.scratch.meetings;
  meetings.clear();
  for (const auto& [a, b] : tick.scratch.pairs) {
    if (is(meeters[a], cue.which) && is(meeters[b], cue.other)) meetings.push_back({a, b});
    if (is(meeters[b], cue.which) && is(meeters[a], cue.other)) meetings.push_back({b, a});
  }
  std::sort(meetings.begin(), meetings.end());
  for (const Meeting& meeting : meetings) {
    const Entity a = meeters[meeting.a].entity, b = meeters[meeting.b].entity;
    const Overlap overlap = overlap_of(a, b);
    tick.scratch.overlaps.push_back(overlap);
    const bool begins = !holds(tick.world.overlaps, overlap);
    if (cue.when == When::lasts || (cue.when == When::begins && begins)) call(cue, tick, a, b);
  }
}

void tell_ends(const Cues::OverlapCue& cue, Tick& tick, const std::vector<Overlap>& now) {
  const auto fits = [&tick](Entity entity, const Which& which) {
    return is(tick.stage.kind_of(entity), tick.world.entities.find<Tags>(entity), which);
  };
  for (const Overlap& overlap : tick.world.overlaps) {
    if (holds(now, overlap)) continue;
    const auto [first, second] = overlap;
    if (fits(first, cue.which) && fits(second, cue.other)) call(cue, tick, first, second);
    if (fits(second, cue.which) && fits(first, cue.other)) call(cue, tick, second, first);
  }
}

}  // namespace

void tell_meetings(Tick& tick) {
  tick.scratch.overlaps.clear();
  find_meeters(tick);
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
