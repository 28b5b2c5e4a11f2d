#include "vole/world/switches.hpp"

namespace vole {

BodyUse Switches::use_of(std::string_view shape, BodyUse use) const {
  for (const Located<Switch>& item : list)
    if (item.value.holds && item.value.shape == shape) return item.value.use;
  return use;
}

}  // namespace vole
