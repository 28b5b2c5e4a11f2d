#include "vole/world/body.hpp"

#include "vole/world/component_hooks.hpp"

namespace vole {

void need(Body& body, const OfKind& kind) {
  kind.expect_category(body.category);
}

}  // namespace vole
