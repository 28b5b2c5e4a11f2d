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
// A field may be a bool, a number, a std::string, Vec2, IVec2, Rect, IRect, Colour, Entity, Random, an enum with
// enum_names, another described struct, std::vector, std::array or std::optional of these, Named (a table
// with keys of the writer's choice), Located (a value that keeps its position in the file), or, in files only, a Node (left
// as it is) or a type with its own read_field. `v.rest(named)` takes all keys of the table that are not listed.
#pragma once

#include <array>
#include <cstddef>
#include <limits>
#include <optional>
#include <string>
#include <string_view>
#include <type_traits>
#include <vector>

#include "vole/base/colour.hpp"
#include "vole/base/entity.hpp"
#include "vole/base/error.hpp"
#include "vole/base/node.hpp"
#include "vole/base/random.hpp"
#include "vole/base/rect.hpp"
#include "vole/base/vec.hpp"

namespace vole {

// What must hold for a field of a file. For a Vec2 the limits hold for each part, for a list for each item.
// The limits of a state field (numbers only) hold whenever a state is read: what the program itself never goes beyond.
struct FieldRule {
  bool required = false;
  double least = -std::numeric_limits<double>::max();
  double most = std::numeric_limits<double>::max();
  std::size_t most_items = 65536;  // of a list, or of a table with keys of the writer's choice
  bool is_position = false;        // see position()

  constexpr FieldRule within(double from, double to) const {
    FieldRule rule = *this;
    rule.least = from;
    rule.most = to;
    return rule;
  }
  constexpr FieldRule items(std::size_t at_most) const {
    FieldRule rule = *this;
    rule.most_items = at_most;
    return rule;
  }
  constexpr bool limited() const { return least > -std::numeric_limits<double>::max(); }
  constexpr bool allows(double value) const { return value >= least && value <= most; }
};

// The file must have this field.
constexpr FieldRule needed() {
  return {true};
}
constexpr FieldRule within(double least, double most) {
  return FieldRule{}.within(least, most);
}
// A list or table in a file has at most so many items.
constexpr FieldRule items(std::size_t at_most) {
  return FieldRule{}.items(at_most);
}

// It is a place in the level: a Vec2 or Rect in pixels, an IVec2 in cells, or a list of these. In a level without end it changes
// when the level's origin moves along: see pieces.hpp.
constexpr FieldRule position() {
  FieldRule rule;
  rule.is_position = true;
  return rule;
}

// No program counts more ticks than this: over four thousand years of them.
inline constexpr double most_ticks = 8796093022208;

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

template <class T>
struct IsVector : std::false_type {};
template <class T>
struct IsVector<std::vector<T>> : std::true_type {};
template <class T>
struct IsArray : std::false_type {};
template <class T, std::size_t count>
struct IsArray<std::array<T, count>> : std::true_type {};
template <class T>
struct IsNamed : std::false_type {};
template <class T>
struct IsNamed<Named<T>> : std::true_type {};
template <class T>
struct IsOptional : std::false_type {};
template <class T>
struct IsOptional<std::optional<T>> : std::true_type {};
template <class T>
struct IsLocated : std::false_type {};
template <class T>
struct IsLocated<Located<T>> : std::true_type {};

template <class T>
inline constexpr bool always_false = false;

}  // namespace detail

template <class T>
concept Described = requires(detail::AnyVisitor& v, T& value) {
  describe(v, value);
};

// A struct whose only field stands in files for all of it: tags = ["a", "b"] and not tags = { names = ["a", "b"] }. A function
// `one_field(T&)` returns it, as OnlyField.
template <class F>
struct OnlyField {
  F& field;
  FieldRule rule;
  std::string_view format{};  // what its text names, for schemas
};
template <class T>
concept WrittenAsOne = requires(T& value) {
  one_field(value).field;
};

// An enum with a function `constexpr auto enum_names(Kind)` that returns a std::array of its names, in order.
template <class T>
concept NamedEnum = std::is_enum_v<T> && requires(T value) {
  enum_names(value).size();
};

}  // namespace vole
