// Small boxes and rays fixed to a thing that ask whether something is there, each with a name. In kinds.toml:
//
//   probes.floor_ahead = { at = [7, 1], size = [2, 4], categories = ["ground"] }     # before the feet: is there ground?
//   probes.prey = { from = [5, -6], to = [90, -6], categories = ["walkers", "ground"] }    # what it sees, and not through walls
//
// In pixels from the position, facing right; it turns with the thing. Clip rules read them as facts, code by Stage::probe().
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/base/rect.hpp"

namespace vole {

class OfKind;

struct Probe {
  Vec2 at{0, 0};
  Vec2 size{2, 2};
  std::optional<Vec2> from, to;  // in place of a box: a ray, which ends at the first that it meets
  std::vector<Located<std::string>> categories;  // none: all

  Rect box(Vec2 position, bool mirrored) const {
    return {position + Vec2{mirrored ? -at.x - size.x : at.x, at.y}, size};
  }
  bool is_ray() const { return from && to; }
  // Where a point of the ray is.
  static Vec2 placed(Vec2 point, Vec2 position, bool mirrored) {
    return position + Vec2{mirrored ? -point.x : point.x, point.y};
  }
};
template <class V>
void describe(V& v, Probe& probe) {
  v("at", probe.at, within(-4096, 4096));
  v("size", probe.size, within(0.125, 4096));
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
