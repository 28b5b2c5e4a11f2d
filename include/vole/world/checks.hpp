// Small boxes and rays fixed to a thing that ask whether something is there, each with a name. In kinds.toml:
//
//   checks.ledge = { at = [7, 1], size = [2, 4], of = ["ground"] }     # before the feet: is there ground?
//   checks.prey = { from = [5, -6], to = [90, -6], of = ["walkers", "ground"] }    # what it sees, and not through walls
//
// In pixels from the position, facing right; it turns with the thing. Clip rules read them as facts, code by Stage::check().
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/base/rect.hpp"

namespace vole {

class OfKind;

struct Check {
  Vec2 at{0, 0};
  Vec2 size{2, 2};
  std::optional<Vec2> from, to;          // in place of a box: a ray, which ends at the first that it meets
  std::vector<Located<std::string>> of;  // categories; none: all

  Rect box(Vec2 position, bool faces_left) const {
    return {position + Vec2{faces_left ? -at.x - size.x : at.x, at.y}, size};
  }
  bool is_ray() const { return from && to; }
  // Where a point of the ray is.
  static Vec2 placed(Vec2 point, Vec2 position, bool faces_left) {
    return position + Vec2{faces_left ? -point.x : point.x, point.y};
  }
};
template <class V>
void describe(V& v, Check& check) {
  v("at", check.at, within(-4096, 4096));
  v("size", check.size, within(0.125, 4096));
  v("from", check.from, within(-4096, 4096));
  v("to", check.to, within(-4096, 4096));
  v("of", check.of, items(32));
}

struct Checks {
  Named<Check> all;
};
template <class V>
void describe(V& v, Checks& checks) {
  v("all", checks.all);
}
inline OnlyField<Named<Check>> one_field(Checks& checks) {
  return {checks.all, items(32)};
}

void need(Checks& checks, const OfKind& kind);

}  // namespace vole
