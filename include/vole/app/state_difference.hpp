// Where two states of a game differ: by thing, component and field.
//
//   for (const StateDifference& d : state_differences(parse_toml(a.to_toml(), "a"), parse_toml(b.to_toml(), "b")))
//     print(to_text(d));      // vole 3, motion.velocity: [0.0, 4.5] and [0.0, 0.0]
#pragma once

#include <string>
#include <vector>

#include "vole/base/toml_value.hpp"

namespace vole {

struct StateDifference {
  std::string scene;  // where several lie over one another
  std::string level;  // that the scene has left, and where the difference is; empty: it is in none of those
  std::string thing;  // its kind and index: "vole 3"; empty: not of a thing
  std::string field;  // "motion.velocity", "scene_state.gathered"
  std::string first;  // the values, as TOML; empty: not there
  std::string second;
};

// Of states as Simulation::to_toml writes them.
std::vector<StateDifference> state_differences(const TomlValue& first, const TomlValue& second);
std::string to_text(const StateDifference& difference);

}  // namespace vole
