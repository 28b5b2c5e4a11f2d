// A pilot that follows the controls. In kinds.toml:
//
//   person = {}                                  # or person = { walk = "stroll", jump = "leap" }
#pragma once

#include <string>

#include "vole/base/describe.hpp"

namespace vole {

struct Person {
  Located<std::string> walk{"walk", {}};  // an axis
  Located<std::string> jump{"jump", {}};  // an action
};
template <class V>
void describe(V& v, Person& person) {
  v("walk", person.walk);
  v("jump", person.jump);
}

}  // namespace vole
