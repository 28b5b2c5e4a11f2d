// How many steps things take in the tick; and between these steps, where what a step works with is of a tick.
#include <algorithm>

#include "scene/tick.hpp"

namespace vole {

void pass_time(Tick& tick) {
  World& world = tick.world;
  world.time.pass(1);
  const double rate = double{world.time.rate};
  world.entities.visit<OwnTime>([rate](Entity, OwnTime& time) { time.pass(rate); });
}

void settle_steps(Tick& tick) {
  World& world = tick.world;
  tick.frozen = world.frozen_ticks > 0;
  tick.has_own_times = world.entities.any<OwnTime>();
  if (tick.frozen) world.time.stand(1);
  tick.most_steps = world.time.steps;
  const double rate = double{world.time.rate};
  world.entities.visit<OwnTime>([&](Entity, OwnTime& time) {
    if (tick.frozen) time.stand(rate);
    tick.most_steps = std::max(tick.most_steps, time.steps);
  });
  keep_presses(tick);
  hurry_sequences(tick);
}

void begin_next_step(Tick& tick) {
  tick.world.entities.visit<Pose>([&tick](Entity thing, Pose& pose) {
    if (pose.at == pose.before || tick.step > tick.time_of(thing).steps) return;
    tick.memory.moved.emplace_back(thing, pose.at - pose.before);
    pose.before = pose.at;
  });
}

// What was put somewhere else meanwhile is drawn there: so the way is kept and not the place.
void end_steps(Tick& tick) {
  for (const auto& [thing, by] : tick.memory.moved)
    if (Pose* const pose = tick.world.entities.find<Pose>(thing)) pose->before -= by;
  tick.memory.moved.clear();
}

}  // namespace vole
