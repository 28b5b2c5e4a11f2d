#include "vole/world/probes.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "vole/base/error.hpp"
#include "vole/world/component_hooks.hpp"

namespace vole {
namespace {

constexpr float least_probe_side = 0.125f;  // pixels

}  // namespace

Vec2 Probe::placed(Vec2 point, const ProbeStand& stand) {
  const Vec2 from_middle = point - stand.middle;
  switch (stand.facing) {
    case Direction::down:
      return stand.at + stand.middle + Vec2{-from_middle.y, from_middle.x};
    case Direction::up:
      return stand.at + stand.middle + Vec2{from_middle.y, -from_middle.x};
    case Direction::left:
      return stand.at + Vec2{-point.x, point.y};
    default:
      return stand.at + point;
  }
}

Rect Probe::box(const ProbeStand& stand) const {
  const Vec2 a = placed(area.at, stand), b = placed(area.at + area.size, stand);
  const Vec2 first{std::min(a.x, b.x), std::min(a.y, b.y)};
  return {first, Vec2{std::max(a.x, b.x), std::max(a.y, b.y)} - first};
}

void need(Probes& probes, const OfKind& kind) {
  for (const auto& item : probes.all) {
    if (item.value.from.has_value() != item.value.to.has_value())
      kind.report().error(item.where, "a probe that is a ray has a \"from\" and a \"to\"");
    if (item.value.area.size.x < least_probe_side || item.value.area.size.y < least_probe_side)
      kind.report().error(item.where,
                          fmt::format("the area of a probe is at least {} wide and high", least_probe_side),
                          "it is written [x, y, width, height]");
    for (const Located<std::string>& name : item.value.categories) kind.expect_category(name);
  }
}

}  // namespace vole
