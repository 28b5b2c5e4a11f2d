#include "vole/world/lamp.hpp"

#include "vole/asset/sheet.hpp"
#include "vole/base/error.hpp"
#include "vole/world/component_hooks.hpp"

namespace vole {

void need(Lamp& lamp, const OfKind& kind) {
  const auto& [point, where] = lamp.point;
  const Sheet* const sheet = kind.sheet();
  if (point.empty()) return;
  if (!kind.has_sprite())
    kind.report().error(where, "a thing without a sprite has no points for a lamp");
  else if (sheet && !sheet->missing)
    kind.report().gather([&, &name = point, &at = where] { sheet->point(name, at); });
}

}  // namespace vole
