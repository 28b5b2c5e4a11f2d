// All places in the level that a described value holds, moved together when the level's origin moves along.
//
//   v.state("nest", bird.nest, position());      // in a description
//   move_positions(bird, by);                    // moves bird.nest
#pragma once

#include <stdexcept>

#include "vole/base/values_within.hpp"

namespace vole {

// How far places move: the same distance in cells and in pixels.
struct OriginMove {
  IVec2 cells{0, 0};
  Vec2 pixels{0, 0};
};

// Throws std::logic_error for a position() that is no Vec2, Rect or IVec2, nor made of these.
template <Described T>
void move_positions(T& value, const OriginMove& by) {
  const auto move = [&by]<class V>(V& each, const FieldRule& rule) {
    if constexpr (std::is_same_v<V, Vec2>) {
      if (rule.is_position) each += by.pixels;
    } else if constexpr (std::is_same_v<V, Rect>) {
      if (rule.is_position) each.at += by.pixels;
    } else if constexpr (std::is_same_v<V, IVec2>) {
      if (rule.is_position) each += by.cells;
    } else if constexpr (std::is_arithmetic_v<V>) {
      if (rule.is_position) throw std::logic_error("position() is for a Vec2, a Rect or an IVec2");
    }
    return false;
  };
  detail::visit_values(value, {}, move);
}

}  // namespace vole
