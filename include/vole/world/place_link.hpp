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

#include "vole/base/describe.hpp"

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

namespace detail {

template <class T>
void visit_links_in(T& value, const LinkVisit& visit);

class LinkVisitor {
 public:
  explicit LinkVisitor(const LinkVisit& visit) : visit_(visit) {}
  template <class T>
  void operator()(std::string_view, T& field, const FieldRule& = {}) {
    visit_links_in(field, visit_);
  }
  template <class T>
  void state(std::string_view key, T& field, const FieldRule& = {}) {
    (*this)(key, field);
  }
  template <class T>
  void rest(Named<T>& fields) {
    visit_links_in(fields, visit_);
  }

 private:
  const LinkVisit& visit_;
};

// All links within a value, however deep.
template <class T>
void visit_links_in(T& value, const LinkVisit& visit) {
  if constexpr (std::is_same_v<T, PlaceLink>) {
    visit(value);
  } else if constexpr (IsOptional<T>::value) {
    if (value) visit_links_in(*value, visit);
  } else if constexpr (IsLocated<T>::value) {
    visit_links_in(value.value, visit);
  } else if constexpr (IsNamed<T>::value) {
    for (auto& item : value) visit_links_in(item.value, visit);
  } else if constexpr (std::is_same_v<T, std::vector<bool>>) {
  } else if constexpr (IsVector<T>::value || IsArray<T>::value) {
    for (auto& item : value) visit_links_in(item, visit);
  } else if constexpr (Described<T>) {
    LinkVisitor visitor(visit);
    describe(visitor, value);
  }
}

}  // namespace detail
}  // namespace vole
