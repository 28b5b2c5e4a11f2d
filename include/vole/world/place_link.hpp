// A thing of the level that another one refers to, by the name of its place:
//
//   struct Lever { vole::PlaceLink gate; };
//   template <class V> void describe(V& v, Lever& lever) { v("gate", lever.gate); }
//
//   [[places]]                               # in the level
//   kind = "lever"
//   cell = [4, 2]
//   lever = { gate = "east gate" }           # the place with that name
//
//   stage.remove(stage.get<Lever>(lever).gate.thing);
//
// A name that no place of the level has is reported when the thing is brought to life, and by `vole check`.
#pragma once

#include <string>

#include "vole/base/describe.hpp"
#include "vole/base/entity.hpp"

namespace vole {

struct PlaceLink {
  Located<std::string> place;  // empty: it refers to nothing
  Entity thing;                // that the place brought to life; none when it is gone
};
template <class V>
void describe(V& v, PlaceLink& link) {
  v("place", link.place, may_be_empty());
  v.state("thing", link.thing);
}
inline OnlyField<Located<std::string>> one_field(PlaceLink& link) {
  return {link.place, may_be_empty(), "place"};
}

}  // namespace vole
