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
// A name that no place of the level has is told when the thing is brought to life, and by `vole check`.
#pragma once

#include <functional>
#include <string>

#include "vole/base/values_within.hpp"

namespace vole {

struct PlaceLink {
  Located<std::string> place;  // empty: it refers to nothing
  Entity thing;                // that the place brought to life; none when it is gone
};
template <class V>
void describe(V& v, PlaceLink& link) {
  v("place", link.place);
  v.state("thing", link.thing);
}
inline OnlyField<Located<std::string>> one_field(PlaceLink& link) {
  return {link.place, {}, "place"};
}

using LinkVisit = std::function<void(PlaceLink&)>;

// All links within a value, however deep.
template <class T>
void visit_links_in(T& value, const LinkVisit& visit) {
  const auto find = [&visit]<class V>(V& each, const FieldRule&) {
    if constexpr (std::is_same_v<V, PlaceLink>) visit(each);
    return std::is_same_v<V, PlaceLink>;
  };
  detail::visit_values(value, {}, find);
}

}  // namespace vole
