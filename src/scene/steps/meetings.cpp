// Calls the cues for bodies that meet, also on their way through the tick, in the order of the cues and then of the things'
// ids; those for bodies that part come last.
#include <fmt/core.h>

#include <algorithm>
#include <tuple>
#include <utility>

#include "scene/bodies/level_edges.hpp"
#include "scene/bodies/possible_meeting.hpp"
#include "scene/cue_call.hpp"
#include "scene/selected_things.hpp"

namespace vole {
namespace {

using When = Cues::MeetingCue::When;

MetPair pair_of(Entity a, Entity b, std::uint32_t shape_of_a, std::uint32_t shape_of_b) {
  return a.index < b.index ? MetPair{a, b, shape_of_a, shape_of_b} : MetPair{b, a, shape_of_b, shape_of_a};
}

bool comes_before(const MetPair& a, const MetPair& b) {
  const auto order = [](const MetPair& of) {
    return std::tuple(of.first.index, of.second.index, of.first_shape, of.second_shape);
  };
  return order(a) < order(b);
}

bool holds(const std::vector<MetPair>& pairs, const MetPair& pair) {
  const auto found = std::lower_bound(pairs.begin(), pairs.end(), pair, comes_before);
  return found != pairs.end() && *found == pair;
}

void call(const Cues::MeetingCue& cue, Tick& tick, Entity a, Entity b, const Meeting& meeting) {
  const auto when = [&] {
    constexpr std::string_view words[] = {"met", "touched", "parted from"};
    return fmt::format("when {} {} {}", described_thing(tick.stage, a),
                       words[static_cast<std::size_t>(cue.when)], described_thing(tick.stage, b));
  };
  call_cue(tick, when, [&] { cue.handler(tick.stage, a, b, meeting); });
}

// Cues share bits where there are more than 32 of them: then more pairs are looked at, and none is missed.
PairRoles roles_of(const Tick& tick, Entity entity, std::uint8_t category) {
  PairRoles roles{0, 0, std::uint64_t{1} << category, tick.stage.categories().notices(category)};
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

void add_meeter(TickMemory& memory, const Meeter& meeter, const Rect& box, const PairRoles& roles) {
  memory.meeters.push_back(meeter);
  memory.swept.push_back(swept(box.moved_by(meeter.other_side), meeter.motion, touching_distance));
  memory.roles.push_back(roles);
}

// Two that cross an edge meet on one side of the level, and on the other; and none meets itself.
void keep_each_pair_once(TickMemory& memory) {
  const auto things = [&memory](const IndexPair& pair) {
    return std::pair(memory.meeters[pair.first].entity.index, memory.meeters[pair.second].entity.index);
  };
  std::erase_if(memory.pairs,
                [&](const IndexPair& pair) { return things(pair).first == things(pair).second; });
  std::stable_sort(memory.pairs.begin(), memory.pairs.end(),
                   [&](const IndexPair& a, const IndexPair& b) { return things(a) < things(b); });
  memory.pairs.erase(
      std::unique(memory.pairs.begin(), memory.pairs.end(),
                  [&](const IndexPair& a, const IndexPair& b) { return things(a) == things(b); }),
      memory.pairs.end());
}

void find_meeters(Tick& tick) {
  TickMemory& memory = tick.memory;
  const SolidThings& solids = tick.stage.solids();
  memory.meeters.clear();
  memory.swept.clear();
  memory.roles.clear();
  memory.pairs.clear();
  bool cross_edges = false;
  for (BodyId id = 0; id < solids.world().end(); ++id) {
    if (!solids.world().has(id) || solids.world().body(id).use == BodyUse::off) continue;
    const Entity entity = solids.thing(id);
    const PairRoles roles = roles_of(tick, entity, solids.world().body(id).category);
    if (roles.is == 0) continue;
    const Pose& pose = tick.stage.get<Pose>(entity);
    const Vec2 motion = tick.motion_of(entity, pose);
    const Rect box = solids.world().body(id).bounds();
    add_meeter(memory, {entity, motion, {0, 0}}, box, roles);
    const LevelEdge* const edge = std::as_const(tick.world.entities).find<LevelEdge>(entity);
    if (!edge) continue;
    for (const Vec2 by : other_sides(edge, &tick.world.level, swept(box, motion, 0)))
      if (by != Vec2{0, 0}) {
        add_meeter(memory, {entity, motion, by}, box, roles);
        cross_edges = true;
      }
  }
  memory.near.find(memory.swept, memory.roles, memory.pairs);
  std::erase_if(memory.pairs, [&](const IndexPair& pair) {
    return !PossibleMeeting(tick, memory.meeters[pair.first], memory.meeters[pair.second]).happens();
  });
  if (cross_edges) keep_each_pair_once(memory);
}

// Whether one came from another level where the other lies, and has not left it since: a door does not lead back at once.
bool on_arrival(const World& world, const MetPair& pair) {
  return holds(world.met_on_arrival, pair) ||
         std::any_of(world.arrived.begin(), world.arrived.end(),
                     [&](Entity thing) { return thing == pair.first || thing == pair.second; });
}

// What lasts of it; `met` is all that meets now.
void go_on_from_arrival(World& world) {
  if (world.arrived.empty() && world.met_on_arrival.empty()) return;
  std::vector<MetPair> still;
  for (const MetPair& pair : world.met)
    if (on_arrival(world, pair)) still.push_back(pair);
  world.met_on_arrival = std::move(still);
  world.arrived.clear();
}

// Notes what meets; only a cue for what parts is not called yet.
void tell_cue(const Cues::MeetingCue& cue, Tick& tick) {
  const std::vector<Meeter>& meeters = tick.memory.meeters;
  std::vector<MeetingPair>& meetings = tick.memory.meetings;
  meetings.clear();
  for (const auto& [a, b] : tick.memory.pairs) {
    const auto is = [&](std::uint32_t place, const ThingSelector& which) {
      return fits(tick.stage, meeters[place].entity, which);
    };
    if (is(a, cue.which) && is(b, cue.other)) meetings.emplace_back(a, b);
    if (is(b, cue.which) && is(a, cue.other)) meetings.emplace_back(b, a);
  }
  std::sort(meetings.begin(), meetings.end());
  for (const auto& [first, second] : meetings) {
    const Meeter &a = meeters[first], &b = meeters[second];
    // Bodies do meet; whether the shapes do that are meant is another question.
    const std::uint32_t shape_of_a = shape_meant(tick.stage, a.entity, cue.which),
                        shape_of_b = shape_meant(tick.stage, b.entity, cue.other);
    const PossibleMeeting possible(tick, a, b, shape_of_a, shape_of_b);
    if ((shape_of_a != any_shape || shape_of_b != any_shape) && !possible.happens()) continue;
    const MetPair pair = pair_of(a.entity, b.entity, shape_of_a, shape_of_b);
    tick.memory.met.push_back(pair);
    const bool begins = cue.when == When::begins && !holds(tick.world.met, pair);
    const bool wanted = (begins || cue.when == When::lasts) && !on_arrival(tick.world, pair);
    if (wanted && !tick.stage.removed(a.entity) && !tick.stage.removed(b.entity))
      call(cue, tick, a.entity, b.entity, possible.meeting());
  }
}

void tell_part(Tick& tick, const MetPair& pair) {
  const auto [first, second, first_shape, second_shape] = pair;
  const std::vector<Cues::MeetingCue>& cues = tick.cues.meetings();
  for (std::size_t i = 0; i < cues.size(); ++i) {
    if (cues[i].when != When::ends) continue;
    const auto is = [&](Entity a, std::uint32_t shape_of_a, Entity b, std::uint32_t shape_of_b) {
      return fits(tick.stage, a, cues[i].which) && fits(tick.stage, b, cues[i].other) &&
             shape_meant(tick.stage, a, cues[i].which) == shape_of_a &&
             shape_meant(tick.stage, b, cues[i].other) == shape_of_b;
    };
    if (is(first, first_shape, second, second_shape)) call(cues[i], tick, first, second, {});
    if (is(second, second_shape, first, first_shape)) call(cues[i], tick, second, first, {});
  }
}

// Things that have no room any more, and those that have again.
void tell_squeezed(Tick& tick) {
  std::vector<MetPair>& now = tick.memory.met;
  now.clear();
  for (const Squeezed& each : tick.memory.squeezed)
    now.push_back({each.thing, each.by, any_shape, any_shape});
  std::sort(now.begin(), now.end(), comes_before);
  now.erase(std::unique(now.begin(), now.end()), now.end());
  const std::vector<MetPair> before = std::exchange(tick.world.squeezed, now);
  if (now.empty()) return;
  const std::vector<MetPair> squeezed = now;
  for (const MetPair& each : squeezed) {
    if (std::find(before.begin(), before.end(), each) != before.end()) continue;
    for (const Cues::SqueezeCue& cue : tick.cues.squeezes()) {
      if (tick.stage.removed(each.first) || !fits(tick.stage, each.first, cue.which)) continue;
      const auto when = [&] {
        return fmt::format("when {} was squeezed by {}", described_thing(tick.stage, each.first),
                           described_thing(tick.stage, each.second));
      };
      call_cue(tick, when, [&] { cue.handler(tick.stage, each.first, each.second); });
    }
  }
}

}  // namespace

void tell_meetings(Tick& tick) {
  tick.know_bodies();
  // What cues do is not known.
  tick.bodies_known = false;
  find_tile_meetings(tick);
  tell_squeezed(tick);
  tick.memory.met.clear();
  find_meeters(tick);
  const std::vector<Cues::MeetingCue>& cues = tick.cues.meetings();
  for (std::size_t i = 0; i < cues.size(); ++i) tell_cue(cues[i], tick);
  std::vector<MetPair>& now = tick.memory.met;
  std::sort(now.begin(), now.end(), comes_before);
  now.erase(std::unique(now.begin(), now.end()), now.end());
  tick.world.met.swap(now);
  go_on_from_arrival(tick.world);
  for (std::size_t i = 0; i < now.size(); ++i)
    if (!holds(tick.world.met, now[i])) tell_part(tick, now[i]);
  tell_tile_meetings(tick);
}

void part_removed(Tick& tick) {
  std::erase_if(tick.world.met_tiles, [&tick](const MetTiles& met) { return tick.stage.removed(met.thing); });
  std::vector<MetPair>& pairs = tick.world.met;
  const auto is_over = [&tick](const MetPair& pair) {
    return tick.stage.removed(pair.first) || tick.stage.removed(pair.second);
  };
  // One at a time, since what is told may remove more.
  for (auto next = pairs.begin();
       (next = std::find_if(pairs.begin(), pairs.end(), is_over)) != pairs.end();) {
    const MetPair pair = *next;
    pairs.erase(next);
    tell_part(tick, pair);
  }
}

}  // namespace vole
