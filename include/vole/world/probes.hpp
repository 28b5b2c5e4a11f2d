// Small boxes and rays fixed to a thing that ask whether something is there, each with a name. In kinds.toml:
//
//   probes.floor_ahead = { area = [7, 1, 2, 4], categories = ["ground"] }     # before the feet: is there ground?
//   probes.prey = { from = [5, -6], to = [90, -6], categories = ["walkers", "ground"] }    # what it sees, and not through walls
//
// In pixels from the position, facing right. It turns with the thing: to the left as in a mirror, and up and down, where that is seen
// from above, by a quarter turn around the middle of its body. Clip rules read them as facts, code by Stage::probe().
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/base/direction.hpp"
#include "vole/base/rect.hpp"

namespace vole {

class OfKind;

// How the thing of a probe stands: where, which of four ways it faces, and the middle of its body from there.
struct ProbeStand {
  Vec2 at{0, 0};
  Direction facing = Direction::right;
  Vec2 middle{0, 0};
};

struct Probe {
  Rect area{{0, 0}, {2, 2}};
  std::optional<Vec2> from, to;  // in place of the area: a ray, which ends at the first that it meets
  std::vector<Located<std::string>> categories;  // none: all

  Rect box(const ProbeStand& stand) const;
  bool is_ray() const { return from && to; }
  // Where a point of the ray is.
  static Vec2 placed(Vec2 point, const ProbeStand& stand);
};
template <class V>
void describe(V& v, Probe& probe) {
  v("area", probe.area, within(-4096, 4096));
  v("from", probe.from, within(-4096, 4096));
  v("to", probe.to, within(-4096, 4096));
  v("categories", probe.categories, items(32));
}

struct Probes {
  Named<Probe> all;
};
template <class V>
void describe(V& v, Probes& probes) {
  v("all", probes.all);
}
inline OnlyField<Named<Probe>> one_field(Probes& probes) {
  return {probes.all, items(32)};
}

void need(Probes& probes, const OfKind& kind);

}  // namespace vole
