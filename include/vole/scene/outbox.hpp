// What a simulation asks of what is outside of it. Whoever runs it takes this after each tick (Simulation::take_outbox): a session does
// what it says, a replay leaves it. It is no state, and nothing comes back but as input that is recorded; so a run is the same whatever the
// player has set.
#pragma once

#include <utility>
#include <vector>

#include "vole/input/rebinding.hpp"

namespace vole {

struct Outbox {
  // What the player has bound, in order; one without a name: all is as the game's files say again.
  std::vector<Rebinding> rebindings;

  bool empty() const { return rebindings.empty(); }
  // What came after it.
  void add(Outbox later) {
    for (Rebinding& rebinding : later.rebindings) rebindings.push_back(std::move(rebinding));
  }
};

}  // namespace vole
