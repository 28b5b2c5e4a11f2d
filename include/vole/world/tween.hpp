// A field of a component that becomes another value over time. As state; to begin one see Stage::tween.
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "vole/base/easing.hpp"
#include "vole/base/vec4.hpp"
#include "vole/world/component_types.hpp"

namespace vole {

// A part of a tween's way; values as in FieldRef.
struct TweenLeg {
  Vec4 value{0, 0, 0, 0};
  float seconds = 0;
  Ease ease = Ease::linear;
};
template <class V>
void describe(V& v, TweenLeg& leg) {
  v.state("value", leg.value);
  v.state("seconds", leg.seconds);
  v.state("ease", leg.ease);
}

struct Tween {
  Entity entity;
  std::string component, field;
  std::vector<TweenLeg> legs;
  std::uint32_t leg = 0;   // the one under way
  std::int64_t ticks = 0;  // of it
  Vec4 from{0, 0, 0, 0};   // where it began
  std::string told;        // when the last leg is done; empty: nothing

  BoundField bound;  // found by the names
};
template <class V>
void describe(V& v, Tween& tween) {
  v.state("entity", tween.entity);
  v.state("component", tween.component);
  v.state("field", tween.field);
  v.state("legs", tween.legs);
  v.state("leg", tween.leg);
  v.state("ticks", tween.ticks, within(0, most_ticks));
  v.state("from", tween.from);
  v.state("told", tween.told);
}

}  // namespace vole
