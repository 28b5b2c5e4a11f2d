// A pilot that follows the controls. In kinds.toml:
//
//   person = {}                                  # or person = { walk = "stroll", jump = "leap" }
#pragma once

#include <string>

#include "vole/base/describe.hpp"

namespace vole {

struct Person {
  Located<std::string> walk{"walk", {}};            // an axis: left and right
  Located<std::string> walk_down{"walk_down", {}};  // an axis: up and down; needed with a top_mover
  Located<std::string> jump{"jump", {}};            // an action; needed with a side_mover
  Located<std::string> drop{"drop", {}};            // an action: down through boards; may be missing
};
template <class V>
void describe(V& v, Person& person) {
  v("walk", person.walk);
  v("walk_down", person.walk_down);
  v("jump", person.jump);
  v("drop", person.drop);
}

}  // namespace vole
