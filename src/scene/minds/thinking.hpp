// What a mind wants in a tick.
#pragma once

#include "scene/tick.hpp"
#include "vole/input/intent.hpp"
#include "vole/world/mind.hpp"

namespace vole {

// What is known of a thing while its mind decides.
struct Thinker {
  Tick& tick;
  Entity thing;
  Mind& mind;
  const Pose& pose;
  const CollisionBody* body = nullptr;  // none: nothing is in its way
  MoveRules rules = {};

  Vec2 middle() const;
  std::int64_t in_ticks(float seconds) const;
};

// Chooses the part that decides: the first that applies. `goal`: where the thing is that it is about.
const MindPart* choose_part(Thinker& thinker, std::optional<Vec2>& goal);
// What that part wants, said so that the thing's mover understands it.
Intent intent_of(Thinker& thinker, const MindPart& part, Vec2 goal);

Intent think(Tick& tick, Entity thing, Mind& mind, const Intent& before);

}  // namespace vole
