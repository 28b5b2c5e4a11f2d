// What must hold for a field of a described struct: see describe.hpp.
#pragma once

#include <cstddef>
#include <cstdint>

namespace vole {

// Whether a text in a file may be "". Usually it may, but for one that keeps its position (Located): that is a name.
enum class EmptyText : std::uint8_t { usual, allowed, refused };

// For a Vec2 the limits hold for each part, for a list for each item.
// The limits of a state field (numbers only) hold whenever a state is read: what the program itself never goes beyond.
struct FieldRule {
  static constexpr double no_limit = 1.7976931348623157e308;  // the largest double

  bool required = false;
  double least = -no_limit;
  double most = no_limit;
  std::size_t most_items = 65536;  // of a list, or of a table with keys of the writer's choice
  bool is_position = false;        // see position()
  EmptyText empty_text = EmptyText::usual;

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
  constexpr FieldRule empty_allowed() const {
    FieldRule rule = *this;
    rule.empty_text = EmptyText::allowed;
    return rule;
  }
  constexpr bool limited() const { return least > -no_limit; }
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

constexpr FieldRule may_be_empty() {
  return FieldRule{}.empty_allowed();
}
constexpr FieldRule must_not_be_empty() {
  FieldRule rule;
  rule.empty_text = EmptyText::refused;
  return rule;
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

}  // namespace vole
