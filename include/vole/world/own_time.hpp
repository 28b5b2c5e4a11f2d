// How fast time goes for a thing, or for all things of a scene. In kinds.toml:
//
//   own_time = { rate = 0.25 }
//
//   stage.set_time_rate(0.25f);                 // slow motion
//   stage.set_time_rate(wasp, 0);               // one that stands still
//
// The number of ticks stays the same: in each a thing takes no step, one or several, as many as its rate has come to. The rates of a thing
// and of its scene are multiplied. What is drawn goes on evenly, also in a tick without a step.
#pragma once

#include <cstdint>

#include "vole/base/describe.hpp"
#include "vole/base/entity.hpp"

namespace vole {

class World;

inline constexpr float highest_time_rate = 4;

struct OwnTime {
  float rate = 1;

  std::int64_t owed = 0;  // of a step, in 2^-32 of it: a whole number, so nothing drifts
  int steps = 0;          // that are taken in this tick
  bool stood = false;     // none was taken in the tick before
  // How much of the way of the last step is drawn, at the begin of the tick and at its end.
  float shown_from = 0;
  float shown_to = 1;

  // Whether a step comes with the next tick.
  bool is_due(double scene_rate) const;
  // The next tick, and with it as many steps as have come together; at most `highest_time_rate`.
  void pass(double scene_rate);
  // None in this tick after all, whatever the rate is.
  void stand(double scene_rate);
  float shown(float share) const { return shown_from + (shown_to - shown_from) * share; }
};
template <class V>
void describe(V& v, OwnTime& time) {
  v("rate", time.rate, within(0, highest_time_rate));
  v.state("owed", time.owed, within(0, 4294967295.0));
  v.state("steps", time.steps, within(0, highest_time_rate));
  v.state("stood", time.stood);
  v.state("shown_from", time.shown_from, within(0, 1));
  v.state("shown_to", time.shown_to, within(0, 1));
}

// How much of a thing's last step is drawn at this share of the tick (Pose::shown_at).
float shown_share(const World& world, Entity thing, float share);

}  // namespace vole
