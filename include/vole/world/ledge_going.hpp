// How far a mind has come on its way over ledges: see `finds_way` in mind.hpp.
#pragma once

#include <array>
#include <cstdint>
#include <string_view>

#include "vole/base/describe.hpp"

namespace vole {

// A way from one ledge to another.
enum class CrossingKind : std::uint8_t {
  none,
  jump,        // as high as it can, and across
  hop,         // the shortest jump
  jump_up,     // up first, and across when it is high enough
  jump_twice,  // and once more in the air
  walk_off,    // down from an end
  drop,        // through what is one-way
  climb_up,    // a ladder
  climb_down
};
constexpr auto enum_names(CrossingKind) {
  return std::array<std::string_view, 9>{"none",     "jump", "hop",      "jump up",   "jump twice",
                                         "walk off", "drop", "climb up", "climb down"};
}

struct LedgeGoing {
  CrossingKind crossing = CrossingKind::none;  // while it crosses
  float across = 0;                            // to the left -1, to the right 1
  std::int32_t ticks = 0;                      // of the crossing
  bool is_off = false;                         // it has left the ground since
  // The crossing to which it goes, on its way to which ledge; below 0: none. It stays with it while both ledges stay the same.
  std::int32_t chosen = -1, goal = -1;
  bool runs = false;  // takes its run before that
  // What it goes by is known once it has looked around for so many ticks: of this level as it is, and for its numbers.
  std::uint32_t looks_at = 0;
  std::int32_t looked = 0;
  // The crossing for which there was no room when it came to it, and for how many ticks it is left out.
  std::int32_t avoided = -1;
  std::int32_t avoids = 0;
};
template <class V>
void describe(V& v, LedgeGoing& going) {
  v.state("crossing", going.crossing);
  v.state("across", going.across, within(-1, 1));
  v.state("ticks", going.ticks, within(0, 100000));
  v.state("is_off", going.is_off);
  v.state("chosen", going.chosen);
  v.state("goal", going.goal);
  v.state("runs", going.runs);
  v.state("looks_at", going.looks_at);
  v.state("looked", going.looked, within(0, 1e9));
  v.state("avoided", going.avoided);
  v.state("avoids", going.avoids, within(0, 100000));
}

}  // namespace vole
