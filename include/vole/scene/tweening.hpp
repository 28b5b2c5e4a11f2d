// Begins a tween, leg by leg:
//
//   stage.tween(lantern, &Sprite::opacity).to(0, 0.5f).then(1, 0.2f, Ease::quad_out).then_tell("lamp lit");
//
// Legs follow one another; several tweens run side by side. A tween goes when its thing goes, when the thing loses the
// component, or when it is over; a newer tween of the same field takes an older one's place.
#pragma once

#include <type_traits>

#include "vole/world/tween.hpp"

namespace vole {

// To be used at once, in one expression.
template <class Field>
class Tweening {
 public:
  Tweening(std::vector<Tween>& all, std::size_t index) : all_(all), index_(index) {}

  // Adds a leg that ends at `value` after so many seconds; 0: at the next tick.
  Tweening& to(const Field& value, float seconds, Ease ease = Ease::linear) {
    add_leg(all_, index_, parts_of(value), seconds, ease);
    return *this;
  }
  Tweening& then(const Field& value, float seconds, Ease ease = Ease::linear) {
    return to(value, seconds, ease);
  }
  // Tells a name when the last leg is done: see Cues::when_told.
  void then_tell(std::string_view name) { all_[index_].told = name; }

 private:
  std::vector<Tween>& all_;
  std::size_t index_;
};

}  // namespace vole
