// Begins a tween, leg by leg:
//
//   stage.tween(lantern, &Sprite::opacity).to(0, 0.5f).then(1, 0.2f, Ease::quad_out).then_tell("lamp lit");
//
// Legs follow one another; several tweens run side by side. A tween goes when its thing goes, when the thing loses the
// component, or when it is over; a newer tween of the same field takes an older one's place.
#pragma once

#include <string_view>
#include <vector>

#include "vole/base/described_type.hpp"
#include "vole/base/easing.hpp"

namespace vole {

struct Tween;

namespace detail {

// One leg more for a tween, by its place in the list; its numbers are brought within what they may be (base/within.hpp). Throws Error for
// what is not a number, and then takes a tween without legs away.
void add_leg(std::vector<Tween>& all, std::size_t tween, const FieldType& type, const void* value,
             float seconds, Ease ease);
void tell_at_end(std::vector<Tween>& all, std::size_t tween, std::string_view name);

}  // namespace detail

// To be used at once, in one expression.
template <class Field>
class Tweening {
 public:
  Tweening(std::vector<Tween>& all, std::size_t index) : all_(all), index_(index) {}

  // Adds a leg that ends at `value` after so many seconds; 0: at the next tick.
  Tweening& to(const Field& value, float seconds, Ease ease = Ease::linear) {
    detail::add_leg(all_, index_, field_type<Field>(), &value, seconds, ease);
    return *this;
  }
  Tweening& then(const Field& value, float seconds, Ease ease = Ease::linear) {
    return to(value, seconds, ease);
  }
  // Tells a name when the last leg is done: see Cues::when_told.
  void then_tell(std::string_view name) { detail::tell_at_end(all_, index_, name); }

 private:
  std::vector<Tween>& all_;
  std::size_t index_;
};

}  // namespace vole
