// The question for all that would hold a body which is moved by these rules.
#pragma once

#include "vole/physics/collision_world.hpp"

namespace vole {

inline QueryFilter what_holds(const MoveRules& rules) {
  QueryFilter asked;
  asked.categories = rules.blocked_by;
  asked.except = rules.self;
  asked.sensors = false;
  return asked;
}

}  // namespace vole
