// What the conditions of clip rules and switches ask of a thing.
#pragma once

#include "tick.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/side_mover.hpp"
#include "vole/world/sprite.hpp"

namespace vole {

// The facts about a thing itself; one that has no motion counts as standing on the ground.
struct OwnFacts {
  const Motion* motion = nullptr;
  const Touching* touching = nullptr;
  bool finished = false;
  bool from_above = false;  // it goes on what is seen from above
  const SideMover* side = nullptr;

  float value(FactSource source) const;
};
// Whether its mover goes on what is seen from above.
bool goes_from_above(const Entities& entities, Entity entity);
OwnFacts own_facts(const Tick& tick, Entity entity);

// 1 when the probe finds something, or else 0.
float fact_of_probe(const Tick& tick, Entity entity, const Probe& probe);
// Any fact by its name: its own, of one of its probes, or of its sheet's rules; 0 when there is none.
float fact_of(const Tick& tick, Entity entity, const OwnFacts& own, std::string_view name);

}  // namespace vole
