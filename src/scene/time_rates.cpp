// How fast time goes for things: Stage::set_time_rate.
#include "selected_things.hpp"
#include "vole/base/within.hpp"
#include "vole/scene/stage.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/own_time.hpp"
#include "vole/world/world.hpp"

namespace vole {
namespace {

float brought_within_rates(float rate) {
  return brought_within(rate, 0, highest_time_rate);
}

// Until now its time was that of all.
OwnTime& own_time(World& world, Entity thing) {
  if (OwnTime* const own = world.entities.find<OwnTime>(thing)) return *own;
  OwnTime own = world.time;
  own.rate = 1;
  return world.entities.add(thing, own);
}

}  // namespace

void Stage::set_time_rate(float rate) {
  world_.time.rate = brought_within_rates(rate);
}

void Stage::set_time_rate(Entity thing, float rate) {
  own_time(world_, thing).rate = brought_within_rates(rate);
}

void Stage::set_time_rate(const ThingSelector& which, float rate) {
  expect_known(setting_.kinds.written(), which);
  const float brought = brought_within_rates(rate);
  std::vector<Entity> meant;
  entities_.visit<Pose>([&](Entity thing, const Pose&) {
    if (fits(*this, thing, which)) meant.push_back(thing);
  });
  for (const Entity thing : meant) own_time(world_, thing).rate = brought;
}

float Stage::time_rate() const {
  return world_.time.rate;
}

float Stage::time_rate(Entity thing) const {
  const OwnTime* const own = std::as_const(entities_).find<OwnTime>(thing);
  return own ? own->rate : 1;
}

}  // namespace vole
