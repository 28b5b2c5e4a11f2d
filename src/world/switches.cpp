#include "vole/world/switches.hpp"

namespace vole {

BodyUse Switches::use_of(std::string_view shape, BodyUse use) const {
  for (const Located<Switch>& item : list)
    if (item.value.holds && item.value.shape == shape) return item.value.use;
  return use;
}

std::shared_ptr<const ClipRules> conditions_of(const Switches& switches) {
  auto conditions = std::make_shared<ClipRules>();
  for (const Located<Switch>& item : switches.list) conditions->add({{}, item.value.when, 0, false});
  return conditions;
}

}  // namespace vole
