// A name that was told, until its cue hears it.
#pragma once

#include <string>

#include "vole/base/describe.hpp"
#include "vole/base/entity.hpp"

namespace vole {

struct Told {
  std::string name;
  Entity entity;  // that it is about; none: the scene
};
template <class V>
void describe(V& v, Told& told) {
  v.state("name", told.name);
  v.state("entity", told.entity);
}

}  // namespace vole
