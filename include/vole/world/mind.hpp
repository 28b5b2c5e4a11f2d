// A pilot made of small parts, of which the first that applies decides in each tick, as with clip rules. In kinds.toml:
//
//   [[dog.mind]]
//   does = "chase"
//   of = "float"                   # a kind, or "tagged round": what has a tag
//   within = 90
//   seen = true                    # and no wall between
//
//   [[dog.mind]]
//   does = "wander"
//
// A part applies while all of its `when` hold, what it is about is there, and its time has come. `when` asks facts as in clip rules, probes of
// the thing, and names of its parts. What a mover does with it is the mover's own matter: the same mind walks, flies and goes
// along lanes.
#pragma once

#include <array>
#include <cstdint>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/base/random.hpp"
#include "vole/world/ledge_going.hpp"

namespace vole {

class InLevel;
class OfKind;

class Conditions;

enum class MindDoes : std::uint8_t {
  wait,           // stands still
  patrol,         // straight on, and back at walls and where the ground ends
  follow_path,    // along a path of the level
  wander,         // some way by chance, and then another
  chase,          // to the nearest thing of a kind or tag
  flee,           // away from it
  keep_distance,  // to it or away from it, to have `distance` between
  act             // presses "act" once, and goes on as it went
};

// What a part can do, a row for each: its word, and which other fields it takes. Where it goes then: src/scene/minds/steering.cpp.
struct MindDeed {
  std::string_view word;
  bool about_a_thing = false;  // it says of which kind or tag: `of`
  bool on_a_path = false;      // it says which: `path`
  bool finds_ways = false;     // it may say `finds_way`
  bool at_a_distance = false;  // it says how far: `distance`
  bool presses = false;        // it takes one tick, and says how often: `every`
};
inline constexpr std::array<MindDeed, 8> mind_deeds{
    {{.word = "wait"},
     {.word = "patrol"},
     {.word = "follow path", .on_a_path = true},
     {.word = "wander"},
     {.word = "chase", .about_a_thing = true, .finds_ways = true},
     {.word = "flee", .about_a_thing = true},
     {.word = "keep distance", .about_a_thing = true, .at_a_distance = true},
     {.word = "act", .presses = true}}};
constexpr auto enum_names(MindDoes) {
  std::array<std::string_view, mind_deeds.size()> words;
  for (std::size_t i = 0; i < words.size(); ++i) words[i] = mind_deeds[i].word;
  return words;
}

struct MindPart {
  MindDoes does = MindDoes::wait;
  const MindDeed& deed() const { return mind_deeds[static_cast<std::size_t>(does)]; }
  std::string name;  // a fact of this name is 1 while the part decides
  std::vector<Located<std::string>> when;
  float hold = 0;           // once it decides it goes on for so many seconds, while what it is about is there
  float every = 0;          // it applies once in so many seconds, at their end
  float seconds = 1;        // for so long; of wandering also how long one way is kept
  Located<std::string> of;  // what is chased, fled from or kept at a distance: a kind, or "tagged ..."
  float within = 128;       // pixels at which that counts
  bool seen = false;        // and only where no wall is between
  float remembers = 0;      // seconds in which what is not seen any more is looked for where it was last
  float distance = 48;      // that is kept, in pixels
  Located<std::string> path;  // of the level
  bool finds_way = false;     // chases around walls, or from the side over ledges
  bool jumps = false;         // over what is in its way, for movers seen from the side
  float pace = 1;             // share of what its mover can do
};
template <class V>
void describe(V& v, MindPart& part) {
  v("does", part.does, needed());
  v("name", part.name);
  v("when", part.when, items(32));
  v("hold", part.hold, within(0, 3600));
  v("every", part.every, within(0, 3600));
  v("seconds", part.seconds, within(0, 3600));
  v("of", part.of);
  v("within", part.within, within(0, 65536));
  v("seen", part.seen);
  v("remembers", part.remembers, within(0, 3600));
  v("distance", part.distance, within(0, 65536));
  v("path", part.path);
  v("finds_way", part.finds_way);
  v("jumps", part.jumps);
  v("pace", part.pace, within(0, 1));
}

inline constexpr std::size_t most_mind_parts = 32;

struct Mind {
  std::vector<Located<MindPart>> parts;

  int part = -1;  // that decides
  std::int64_t part_ticks = 0;
  std::int64_t ticks = 0;  // of its life
  bool has_chance = false;
  Random chance{0};
  Vec2 way{0, 0};  // of patrolling and wandering
  std::int64_t way_ticks = 0;
  Vec2 junction{0, 0};  // of lanes, for which the way was chosen
  float along = -1;     // the path: pixels from its start; below 0: not yet on it
  bool goes_back = false;
  Vec2 last_seen{0, 0};          // of what is chased
  std::int64_t since_seen = -1;  // ticks; below 0: not yet
  LedgeGoing over_ledges;
  // The conditions of each part, in order: made from them, so no state.
  std::shared_ptr<const Conditions> conditions = {};

  // The part that decides; nullptr for none.
  const MindPart* deciding() const {
    return part >= 0 && part < static_cast<int>(parts.size()) ? &parts[static_cast<std::size_t>(part)].value
                                                              : nullptr;
  }
};
template <class V>
void describe(V& v, Mind& mind) {
  v("parts", mind.parts);
  v.state("part", mind.part);
  v.state("part_ticks", mind.part_ticks, within(0, most_ticks));
  v.state("ticks", mind.ticks, within(0, most_ticks));
  v.state("has_chance", mind.has_chance);
  v.state("chance", mind.chance);
  v.state("way", mind.way);
  v.state("way_ticks", mind.way_ticks, within(0, most_ticks));
  v.state("junction", mind.junction, position());
  v.state("along", mind.along);
  v.state("goes_back", mind.goes_back);
  v.state("last_seen", mind.last_seen, position());
  v.state("since_seen", mind.since_seen, within(-1, most_ticks));
  v.state("over_ledges", mind.over_ledges);
}
inline OnlyField<std::vector<Located<MindPart>>> one_field(Mind& mind) {
  return {mind.parts, items(most_mind_parts)};
}

void need(Mind& mind, const OfKind& kind);
void expect(const Mind& mind, const InLevel& in);
// Anew where the parts say others. Throws Error for what is none.
void read_conditions(Mind& mind);

}  // namespace vole
