// A field of a component that becomes another value over time:
//
//   stage.tween(lantern, &Sprite::opacity).to(0, 0.5f).then(1, 0.2f, Ease::quad_out).finally([&] { ... });
//
// Legs follow one another; several tweens run side by side. A tween goes when its thing goes, when the thing
// loses the component, or when it is over; a newer tween of the same field takes an older one's place.
#pragma once

#include <cmath>
#include <cstdint>
#include <functional>
#include <memory>
#include <type_traits>
#include <utility>
#include <vector>

#include "vole/base/colour.hpp"
#include "vole/base/easing.hpp"
#include "vole/base/hash.hpp"
#include "vole/base/vec.hpp"
#include "vole/scene/entities.hpp"

namespace vole {

namespace detail {

template <class T>
T mixed(const T& from, const T& to, float share) {
  if constexpr (std::is_same_v<T, Colour>) {
    const auto part = [share](std::uint8_t a, std::uint8_t b) {
      return static_cast<std::uint8_t>(static_cast<float>(a) +
                                       (static_cast<float>(b) - static_cast<float>(a)) * share + 0.5f);
    };
    return {part(from.r, to.r), part(from.g, to.g), part(from.b, to.b), part(from.a, to.a)};
  } else if constexpr (std::is_integral_v<T>) {
    return static_cast<T>(
        std::lround(static_cast<double>(from) +
                    (static_cast<double>(to) - static_cast<double>(from)) * static_cast<double>(share)));
  } else {
    return share >= 1 ? to : from + (to - from) * share;
  }
}

class TweenBase {
 public:
  explicit TweenBase(Entity of) : entity_(of) {}
  virtual ~TweenBase() = default;
  // One tick; false when there is nothing left to do.
  virtual bool step(Entities& entities, int ticks_per_second) = 0;
  // Whether both change the same field of the same thing.
  virtual bool same_field(const TweenBase& other) const = 0;
  virtual void add_to(Hash& hash) const = 0;

  Entity entity() const { return entity_; }
  std::function<void()> take_ending() { return std::exchange(ending_, nullptr); }
  bool over() const { return over_; }

 protected:
  Entity entity_;
  std::function<void()> ending_;
  bool over_ = false;  // reached its end, and was not dropped on the way
};

}  // namespace detail

template <class Component, class Field>
class Tween final : public detail::TweenBase {
 public:
  Tween(Entity of, Field Component::*field) : TweenBase(of), field_(field) {}

  // Adds a leg that ends at `value` after so many seconds; 0: at the next tick.
  Tween& to(Field value, float seconds, Ease ease = Ease::linear) {
    legs_.push_back({value, seconds > 0 ? seconds : 0, ease});
    return *this;
  }
  Tween& then(Field value, float seconds, Ease ease = Ease::linear) { return to(value, seconds, ease); }
  // Called once when the last leg is done; may start tweens, remove things, begin a scene.
  Tween& finally(std::function<void()> ending) {
    ending_ = std::move(ending);
    return *this;
  }

  bool step(Entities& entities, int ticks_per_second) override {
    Component* component = entities.find<Component>(entity_);
    if (!component || leg_ >= legs_.size()) return false;
    Field& field = component->*field_;
    if (ticks_ == 0) from_ = field;
    ++ticks_;
    const Leg& leg = legs_[leg_];
    const float whole = leg.seconds * static_cast<float>(ticks_per_second);
    const float share = whole > 0 ? static_cast<float>(ticks_) / whole : 1.0f;
    field = detail::mixed(from_, leg.value, share >= 1 ? 1.0f : eased(leg.ease, share));
    if (share < 1) return true;
    ticks_ = 0;
    over_ = ++leg_ == legs_.size();
    return !over_;
  }
  bool same_field(const TweenBase& other) const override {
    const auto* same = dynamic_cast<const Tween*>(&other);
    return same && same->entity_ == entity_ && same->field_ == field_;
  }
  void add_to(Hash& hash) const override {
    hash.add(std::uint64_t{entity_.index});
    hash.add(std::uint64_t{leg_});
    hash.add(ticks_);
  }

 private:
  struct Leg {
    Field value;
    float seconds = 0;
    Ease ease = Ease::linear;
  };
  Field Component::*field_;
  std::vector<Leg> legs_;
  std::size_t leg_ = 0;
  std::int64_t ticks_ = 0;  // of this leg
  Field from_{};
};

// All tweens of a stage.
class Tweens {
 public:
  template <class Component, class Field>
  Tween<Component, Field>& add(Entity of, Field Component::*field) {
    auto tween = std::make_unique<Tween<Component, Field>>(of, field);
    Tween<Component, Field>& added = *tween;
    for (auto& other : tweens_)
      if (other && other->same_field(added)) other.reset();
    tweens_.push_back(std::move(tween));
    return added;
  }
  void step(Entities& entities, int ticks_per_second);
  // Those that are under way.
  std::size_t count() const;
  void add_to(Hash& hash) const;

 private:
  std::vector<std::unique_ptr<detail::TweenBase>> tweens_;  // nullptr: gone
  std::vector<std::function<void()>> endings_;
};

}  // namespace vole
