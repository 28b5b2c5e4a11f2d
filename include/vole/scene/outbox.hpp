// What a simulation asks of what is outside of it. Whoever runs it takes this after each tick (Simulation::take_outbox): a session does
// what it says, a replay leaves it. It is no state, and nothing comes back but as input that is recorded (arrived.hpp); so a run is the same
// whatever the player has set.
#pragma once

#include <string>
#include <utility>
#include <vector>

#include "vole/input/rebinding.hpp"

namespace vole {

// How something is saved.
struct SaveAs {
  std::string title = {};  // that the player sees
  bool scenes = false;     // with the scenes, to go on where one was
};

struct SaveAsked {
  enum class Does { saves, loads, removes };

  Does does = Does::saves;
  std::string name;
  SaveAs as = {};
  std::string holds = {};  // what is saved, as tables of TOML
};

// A value that lasts between runs, and has changed.
struct KeptValue {
  std::string name;
  std::string holds;  // its table below [values]
};

struct Outbox {
  // What the player has bound, in order; one without a name: all is as the game's files say again.
  std::vector<Rebinding> rebindings;
  std::vector<SaveAsked> saves;  // in order
  std::vector<KeptValue> kept;

  bool empty() const { return rebindings.empty() && saves.empty() && kept.empty(); }
  // What came after it.
  void add(Outbox later) {
    for (Rebinding& rebinding : later.rebindings) rebindings.push_back(std::move(rebinding));
    for (SaveAsked& asked : later.saves) saves.push_back(std::move(asked));
    for (KeptValue& value : later.kept) kept.push_back(std::move(value));
  }
};

}  // namespace vole
