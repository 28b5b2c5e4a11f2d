#include "vole/world/own_time.hpp"

#include <algorithm>

#include "vole/world/world.hpp"

namespace vole {
namespace {

constexpr std::int64_t whole_step = std::int64_t{1} << 32;

std::int64_t in_parts(double rate) {
  return static_cast<std::int64_t>(std::clamp(rate, 0.0, double{highest_time_rate}) * double{whole_step} +
                                   0.5);
}

}  // namespace

bool OwnTime::is_due(double scene_rate) const {
  return owed + in_parts(scene_rate * double{rate}) >= whole_step;
}

void OwnTime::pass(double scene_rate) {
  owed += in_parts(scene_rate * double{rate});
  stood = steps == 0;
  steps = static_cast<int>(owed / whole_step);
  owed %= whole_step;
  shown_from = steps > 0 ? 0 : shown_to;
  // All of the way is behind it when the next step begins.
  shown_to =
      is_due(scene_rate) ? 1 : std::min(shown_from + static_cast<float>(scene_rate * double{rate}), 1.0f);
}

void OwnTime::stand(double scene_rate) {
  owed = std::clamp(owed + steps * whole_step - in_parts(scene_rate * double{rate}), std::int64_t{0},
                    whole_step - 1);
  // Where a step was due, all of the last way was behind it.
  if (steps > 0) shown_from = 1;
  steps = 0;
  shown_to = shown_from;
}

float shown_share(const World& world, Entity thing, float share) {
  const OwnTime* const own = world.entities.find<OwnTime>(thing);
  return (own ? *own : world.time).shown(share);
}

}  // namespace vole
