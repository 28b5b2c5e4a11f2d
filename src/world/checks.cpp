#include "vole/world/checks.hpp"

#include "vole/base/error.hpp"
#include "vole/world/component_hooks.hpp"

namespace vole {

void need(Checks& checks, const OfKind& kind) {
  for (const auto& item : checks.all) {
    if (item.value.from.has_value() != item.value.to.has_value())
      kind.report().error(item.where, "a check that is a ray has a \"from\" and a \"to\"");
    for (const Located<std::string>& name : item.value.of) kind.expect_category(name);
  }
}

}  // namespace vole
