#include "vole/world/mind.hpp"

namespace vole {

std::shared_ptr<const ClipRules> conditions_of(const Mind& mind) {
  auto conditions = std::make_shared<ClipRules>();
  for (const Located<MindPart>& part : mind.parts) conditions->add({{}, part.value.when, 0, false});
  return conditions;
}

}  // namespace vole
