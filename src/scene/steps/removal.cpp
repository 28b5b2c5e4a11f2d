#include "scene/tick.hpp"
#include "vole/world/attached.hpp"

namespace vole {
namespace {

// Marks what is carried by a marked thing; true when there was something to mark.
bool remove_carried(Entities& entities) {
  bool found = false;
  entities.visit<Attached>([&](Entity thing, const Attached& attached) {
    if (!attached.leaves_along || entities.removed(thing) || !entities.removed(attached.to)) return;
    entities.remove(thing);
    found = true;
  });
  return found;
}

}  // namespace

void remove_things(Tick& tick) {
  World& world = tick.world;
  while (remove_carried(world.entities)) {
  }
  part_removed(tick);
  while (remove_carried(world.entities)) {
  }
  const auto is_gone = [&world](Entity entity) { return entity && world.entities.removed(entity); };
  if (world.entities.any_removed()) {
    world.timers.remove_of(is_gone);
    world.sequences.remove_of(is_gone);
  }
  std::erase_if(world.squeezed,
                [&](const MetPair& pair) { return is_gone(pair.first) || is_gone(pair.second); });
  world.entities.sweep();
}

}  // namespace vole
