// What makes a body, or one of its shapes, solid, a sensor or nothing while the game runs. In kinds.toml:
//
//   [door]
//   switches = [{ event = "opened", use = "sensor" }, { event = "shut", use = "solid" }]
//
//   [vole]
//   shapes = [{ area = [-5, -10, 10, 10] }, { name = "claw", at = [9, -5], radius = 4, use = "off", mirrors = true }]
//   switches = [{ shape = "claw", when = ["digging"], use = "sensor" }]
//
// `event`: from that event of the thing's clip on, until something else changes it. `when`: while all of the conditions hold;
// where several do, the first counts, and where none does, what the kind or code says. Conditions are as in clip rules, of
// their facts, of the thing's motion (grounded, at_wall, vx, vy, speed, finished) and of its probes.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/physics/body_id.hpp"

namespace vole {

class OfKind;

class Conditions;

struct Switch {
  std::string shape;  // its name; empty: all of the body
  std::vector<Located<std::string>> when;
  Located<std::string> event;
  BodyUse use = BodyUse::solid;
  bool holds = false;  // its conditions did at the end of the last tick
};
template <class V>
void describe(V& v, Switch& item) {
  v("shape", item.shape);
  v("when", item.when, items(32));
  v("event", item.event);
  v("use", item.use, needed());
  v.state("holds", item.holds);
}

struct Switches {
  std::vector<Located<Switch>> list;
  // The conditions of each, in order: read from the list whenever that is another, so no state.
  std::shared_ptr<const Conditions> conditions;

  // What the shape of this name, or for "" the body, is while it would be `use` by itself.
  BodyUse use_of(std::string_view shape, BodyUse use) const;
};
template <class V>
void describe(V& v, Switches& switches) {
  v("list", switches.list);
}
inline OnlyField<std::vector<Located<Switch>>> one_field(Switches& switches) {
  return {switches.list, items(64)};
}

void need(Switches& switches, const OfKind& kind);
// Anew where the list says others. Throws Error for what is none.
void read_conditions(Switches& switches);

}  // namespace vole
