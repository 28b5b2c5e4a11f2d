// Crossings from ledge to ledge, as they are tried, and as a mind does them.
#pragma once

#include <optional>

#include "side_play.hpp"
#include "vole/world/ledge_going.hpp"

namespace vole {

inline constexpr float longest_crossing = 4;  // seconds

// What is pressed in a crossing, by how far it has come.
Intent crossing_intent(CrossingKind crossing, float across, bool is_first_tick, const Motion& motion,
                       const SideMover& side);
// Whether it has left the ground, or is on a ladder.
bool is_off_ground(const Touching& touching, const SideMover& side);

// Where it comes to stand when it crosses now, and in how many ticks; none where it does not leave the ground or does not land.
struct Landing {
  Vec2 at{0, 0};
  int ticks = 0;
};
std::optional<Landing> play_crossing(const SidePlay& play, SidePlay::State from, CrossingKind crossing,
                                     float across);

}  // namespace vole
