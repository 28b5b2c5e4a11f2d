// Described once: list a struct's fields in one place, and everything else comes from that list.
//
//   struct Bulb { int worth = 1; float ripe = 0; };
//   template <class V> void describe(V& v, Bulb& b) {
//     v("worth", b.worth, within(1, 100));   // a field of the file, with its limits
//     v.state("ripe", b.ripe);               // changes while the game runs: never in files, always in states
//   }
//
//   reading.hpp   from a TOML table, with unknown keys and wrong types reported
//   writing.hpp   as TOML
//   state.hpp     as bytes: snapshots, copies and checksums
//   schema.hpp    as a JSON Schema, for editors
//   field.hpp     its numbers, pairs and colours by name
//   positions.hpp its places in the level, to move them all
//
// All fields are members of the struct itself, the same ones whatever they hold: the list is made once for each type.
//
// A field may be:
//
//   bool, a number, std::string, Vec2, IVec2, Rect, IRect, Colour, Entity, Random
//   an enum with enum_names; another described struct
//   std::vector, std::array or std::optional of these
//   Named     a table with keys of the writer's choice
//   Located   a value that keeps its position in the file
//   TomlValue, or a type with a read_field of its own: in files alone
//
// `v.rest(named)` takes all keys of the table that are not listed. What can be done with a field of each type: field_type.hpp.
#pragma once

#include <string>
#include <string_view>
#include <type_traits>
#include <vector>

#include "vole/base/colour.hpp"
#include "vole/base/entity.hpp"
#include "vole/base/field_rule.hpp"
#include "vole/base/file_position.hpp"
#include "vole/base/rect.hpp"
#include "vole/base/vec.hpp"

namespace vole {

class TomlValue;
class Report;

// A value with the position it was read from, for messages about it later on. The position is no part of a
// state.
template <class T>
struct Located {
  T value{};
  FilePosition where;
};

// A table whose keys the writer of the file chooses, in the order of the file.
template <class T>
struct NamedItem {
  std::string name;
  FilePosition where;  // of the name
  T value{};
};
template <class T>
using Named = std::vector<NamedItem<T>>;

namespace detail {

struct AnyVisitor {
  template <class T>
  void operator()(std::string_view, T&, const FieldRule& = {}) {}
  template <class T>
  void state(std::string_view, T&, const FieldRule& = {}) {}
  template <class T>
  void rest(Named<T>&) {}
};

}  // namespace detail

template <class T>
concept Described = requires(detail::AnyVisitor& v, T& value) {
  describe(v, value);
};

// An enum with a function `constexpr auto enum_names(Kind)` that returns a std::array of its names, in order.
template <class T>
concept NamedEnum = std::is_enum_v<T> && requires(T value) {
  enum_names(value).size();
};

// A struct whose only field stands in files for all of it: tags = ["a", "b"] and not tags = { names = ["a", "b"] }. A function
// `one_field(T&)` returns it, as OnlyField.
template <class F>
struct OnlyField {
  F& field;
  FieldRule rule;
  std::string_view format{};  // what its text names, for schemas
};

}  // namespace vole
