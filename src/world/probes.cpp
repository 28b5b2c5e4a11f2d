#include "vole/world/probes.hpp"

#include "vole/base/error.hpp"
#include "vole/world/component_hooks.hpp"

namespace vole {

void need(Probes& probes, const OfKind& kind) {
  for (const auto& item : probes.all) {
    if (item.value.from.has_value() != item.value.to.has_value())
      kind.report().error(item.where, "a probe that is a ray has a \"from\" and a \"to\"");
    for (const Located<std::string>& name : item.value.categories) kind.expect_category(name);
  }
}

}  // namespace vole
