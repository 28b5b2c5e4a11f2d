// Calls the cues for bodies that meet, also on their way through the tick, in the order of the cues and then of the things'
// ids; those for bodies that part come last.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <tuple>

#include "../cue_call.hpp"
#include "../which.hpp"
#include "vole/physics/sweep.hpp"
#include "vole/world/motion.hpp"

namespace vole {
namespace {

using When = Cues::MeetingCue::When;

// As near as what holds each other comes, and rounding.
constexpr float touch = 1.0f / 64;

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

void call(const Cues::MeetingCue& cue, Tick& tick, Entity a, Entity b, const Meeting& meeting) {
  const auto when = [&] {
    constexpr std::string_view words[] = {"met", "touched", "parted from"};
    return fmt::format("when {} {} {}", described_thing(tick.stage, a),
                       words[static_cast<std::size_t>(cue.when)], described_thing(tick.stage, b));
  };
  call_cue(when, [&] { cue.handler(tick.stage, a, b, meeting); });
}

// The smallest box that holds a body from where it was to where it is, and what it touches.
Rect swept(const Rect& now, Vec2 motion, float wider) {
  const Rect before = now.moved_by(-motion);
  const Vec2 corner{std::min(before.left(), now.left()), std::min(before.top(), now.top())};
  const Vec2 end{std::max(before.right(), now.right()), std::max(before.bottom(), now.bottom())};
  return {corner - Vec2(wider), end - corner + Vec2(2 * wider)};
}

// What two bodies ask of each other.
class Encounter {
 public:
  Encounter(const Tick& tick, const Meeter& a, const Meeter& b)
      : a_(a), b_(b), body_a_(body_of(tick, a)), body_b_(body_of(tick, b)) {
    const Categories& categories = tick.stage.categories();
    const auto bit = [](const CollisionBody& body) { return CategoryMask{1} << body.category; };
    notice_ = (categories.notices(body_a_.category) & bit(body_b_)) != 0;
    const bool solid = body_a_.use == BodyUse::solid && body_b_.use == BodyUse::solid;
    slack_ = solid && (categories.blocks(body_a_.category) & bit(body_b_)) != 0 ? touch : 0;
  }

  bool happens() const {
    if (!notice_) return false;
    return body_a_.shapes || body_b_.shapes ? shapes_meet() : boxes_meet_or_touch();
  }

  // Looked for in the shapes that are the deepest in each other at the end, or else met on the way.
  Meeting meeting(const Tick& tick) const {
    Meeting meeting;
    double nearest = 1e30;
    visit_shapes([&](const Shape& a, std::uint32_t a_place, const Shape& b, std::uint32_t b_place) {
      const ShapeGap gap = gap_between(a, body_a_.at, b, body_b_.at);
      if (gap.distance >= nearest) return;
      nearest = gap.distance;
      meeting.normal = gap.normal;
      meeting.point = gap.point;
      meeting.shape = a_place;
      meeting.other_shape = b_place;
    });
    if (nearest > static_cast<double>(slack_)) meet_on_the_way(meeting);
    const Vec2 apart = velocity(tick, a_) - velocity(tick, b_);
    meeting.speed = -(apart.x * meeting.normal.x + apart.y * meeting.normal.y);
    return meeting;
  }

 private:
  static const CollisionBody& body_of(const Tick& tick, const Meeter& meeter) {
    return tick.stage.solids().body(meeter.entity);
  }

  static Vec2 velocity(const Tick& tick, const Meeter& meeter) {
    const Touching* const touching = std::as_const(tick.world.entities).find<Touching>(meeter.entity);
    return touching ? touching->came_with : meeter.motion / tick.stage.seconds_per_tick();
  }

  template <class Visit>
  void visit_shapes(const Visit& visit) const {
    body_a_.visit_shapes([&](const Shape& a, std::uint32_t a_place) {
      body_b_.visit_shapes([&](const Shape& b, std::uint32_t b_place) { visit(a, a_place, b, b_place); });
    });
  }

  bool boxes_meet_or_touch() const {
    const Rect a = swept(body_a_.box.moved_by(body_a_.at), {0, 0}, slack_),
               b = body_b_.box.moved_by(body_b_.at);
    return a.overlaps(b) || boxes_meet(a.moved_by(-a_.motion), a_.motion, b.moved_by(-b_.motion), b_.motion);
  }

  bool shapes_meet() const {
    bool meet = false;
    visit_shapes([&](const Shape& a, std::uint32_t, const Shape& b, std::uint32_t) {
      meet = meet || gap_between(a, body_a_.at, b, body_b_.at).distance < static_cast<double>(slack_) ||
             hit_on_the_way(a, b).hit;
    });
    return meet;
  }

  ShapeHit hit_on_the_way(const Shape& a, const Shape& b) const {
    return sweep_shape(a, body_a_.at - a_.motion, a_.motion - b_.motion, b, body_b_.at - b_.motion);
  }

  void meet_on_the_way(Meeting& meeting) const {
    double first = 2;
    visit_shapes([&](const Shape& a, std::uint32_t a_place, const Shape& b, std::uint32_t b_place) {
      const ShapeHit hit = hit_on_the_way(a, b);
      if (!hit.hit || hit.when >= first) return;
      first = hit.when;
      meeting = {hit.normal, hit.point + b_.motion * static_cast<float>(hit.when), 0, a_place, b_place};
    });
  }

  const Meeter& a_;
  const Meeter& b_;
  const CollisionBody& body_a_;
  const CollisionBody& body_b_;
  bool notice_ = false;
  float slack_ = 0;
};

// Cues share bits where there are more than 32 of them: then more pairs are looked at, and none is missed.
PairRoles roles_of(const Tick& tick, Entity entity) {
  PairRoles roles{0, 0};
  const std::vector<Cues::MeetingCue>& cues = tick.cues.meetings();
  for (std::size_t i = 0; i < cues.size(); ++i) {
    const std::uint64_t first = std::uint64_t{1} << (2 * i % 64), second = first << 1;
    if (fits(tick.stage, entity, cues[i].which)) {
      roles.is |= first;
      roles.wants |= second;
    }
    if (fits(tick.stage, entity, cues[i].other)) {
      roles.is |= second;
      roles.wants |= first;
    }
  }
  return roles;
}

void find_meeters(Tick& tick) {
  TickScratch& scratch = tick.scratch;
  const SolidThings& solids = tick.stage.solids();
  scratch.meeters.clear();
  scratch.swept.clear();
  scratch.roles.clear();
  scratch.pairs.clear();
  for (BodyId id = 0; id < solids.world().end(); ++id) {
    if (!solids.world().has(id) || solids.world().body(id).use == BodyUse::off) continue;
    const Entity entity = solids.thing(id);
    const PairRoles roles = roles_of(tick, entity);
    if (roles.is == 0) continue;
    const Pose& pose = tick.stage.get<Pose>(entity);
    scratch.meeters.push_back({entity, pose.at - pose.before});
    scratch.swept.push_back(swept(solids.world().body(id).bounds(), pose.at - pose.before, touch));
    scratch.roles.push_back(roles);
  }
  scratch.near.find(scratch.swept, scratch.roles, scratch.pairs);
  std::erase_if(scratch.pairs, [&](const IndexPair& pair) {
    return !Encounter(tick, scratch.meeters[pair.first], scratch.meeters[pair.second]).happens();
  });
}

// Notes what meets; only a cue for what parts is not called yet.
void tell_cue(const Cues::MeetingCue& cue, Tick& tick) {
  const std::vector<Meeter>& meeters = tick.scratch.meeters;
  std::vector<MeetingPair>& meetings = tick.scratch.meetings;
  meetings.clear();
  for (const auto& [a, b] : tick.scratch.pairs) {
    const auto is = [&](std::uint32_t place, const Which& which) {
      return fits(tick.stage, meeters[place].entity, which);
    };
    if (is(a, cue.which) && is(b, cue.other)) meetings.emplace_back(a, b);
    if (is(b, cue.which) && is(a, cue.other)) meetings.emplace_back(b, a);
  }
  std::sort(meetings.begin(), meetings.end());
  for (const auto& [first, second] : meetings) {
    const Meeter &a = meeters[first], &b = meeters[second];
    const Overlap overlap = overlap_of(a.entity, b.entity);
    tick.scratch.overlaps.push_back(overlap);
    const bool wanted =
        cue.when == When::lasts || (cue.when == When::begins && !holds(tick.world.overlaps, overlap));
    if (wanted && !tick.stage.removed(a.entity) && !tick.stage.removed(b.entity))
      call(cue, tick, a.entity, b.entity, Encounter(tick, a, b).meeting(tick));
  }
}

void tell_part(Tick& tick, const Overlap& overlap) {
  const auto [first, second] = overlap;
  const std::vector<Cues::MeetingCue>& cues = tick.cues.meetings();
  for (std::size_t i = 0; i < cues.size(); ++i) {
    if (cues[i].when != When::ends) continue;
    const auto is = [&](Entity a, Entity b) {
      return fits(tick.stage, a, cues[i].which) && fits(tick.stage, b, cues[i].other);
    };
    if (is(first, second)) call(cues[i], tick, first, second, {});
    if (is(second, first)) call(cues[i], tick, second, first, {});
  }
}

// Things that have no room any more, and those that have again.
void tell_squeezed(Tick& tick) {
  std::vector<Overlap>& now = tick.scratch.overlaps;
  now.clear();
  for (const Squeezed& each : tick.scratch.squeezed) now.push_back({each.thing, each.by});
  std::sort(now.begin(), now.end(), comes_before);
  now.erase(std::unique(now.begin(), now.end()), now.end());
  const std::vector<Overlap> before = std::exchange(tick.world.squeezed, now);
  if (now.empty()) return;
  const std::vector<Overlap> told = now;
  for (const Overlap& each : told) {
    if (std::find(before.begin(), before.end(), each) != before.end()) continue;
    for (const Cues::SqueezeCue& cue : tick.cues.squeezes()) {
      if (tick.stage.removed(each.first) || !fits(tick.stage, each.first, cue.which)) continue;
      const auto when = [&] {
        return fmt::format("when {} was squeezed by {}", described_thing(tick.stage, each.first),
                           described_thing(tick.stage, each.second));
      };
      call_cue(when, [&] { cue.handler(tick.stage, each.first, each.second); });
    }
  }
}

}  // namespace

void tell_meetings(Tick& tick) {
  tick.stage.solids().update(tick.world, tick.stage.categories());
  tell_squeezed(tick);
  tick.scratch.overlaps.clear();
  find_meeters(tick);
  const std::vector<Cues::MeetingCue>& cues = tick.cues.meetings();
  for (std::size_t i = 0; i < cues.size(); ++i) tell_cue(cues[i], tick);
  std::vector<Overlap>& now = tick.scratch.overlaps;
  std::sort(now.begin(), now.end(), comes_before);
  now.erase(std::unique(now.begin(), now.end()), now.end());
  tick.world.overlaps.swap(now);
  for (std::size_t i = 0; i < now.size(); ++i)
    if (!holds(tick.world.overlaps, now[i])) tell_part(tick, now[i]);
}

void part_removed(Tick& tick) {
  std::vector<Overlap>& overlaps = tick.world.overlaps;
  const auto is_over = [&tick](const Overlap& overlap) {
    return tick.stage.removed(overlap.first) || tick.stage.removed(overlap.second);
  };
  // One at a time, since what is told may remove more.
  for (auto next = overlaps.begin();
       (next = std::find_if(overlaps.begin(), overlaps.end(), is_over)) != overlaps.end();) {
    const Overlap overlap = *next;
    overlaps.erase(next);
    tell_part(tick, overlap);
  }
}

}  // namespace vole
