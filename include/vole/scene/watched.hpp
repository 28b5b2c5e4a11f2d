// A value that is looked at in each tick, and told of when it has changed: what Cues::when_changes is made of.
#pragma once

#include <algorithm>
#include <concepts>
#include <exception>
#include <functional>
#include <string>
#include <utility>
#include <vector>

#include "vole/base/described_type.hpp"
#include "vole/scene/thing_selector.hpp"
#include "vole/world/entities.hpp"
#include "vole/world/watched_state.hpp"

namespace vole {

class Stage;

class Watched {
 public:
  virtual ~Watched() = default;
  // As it is now: nothing has changed.
  virtual void begin(const Stage& stage, WatchedState& state) = 0;
  // As it was told last. False where the state is of something else.
  virtual bool go_on(const WatchedState& state) = 0;
  // Tells of what has changed. Returns whether anything has; before a handler is called, all of it is noted.
  virtual bool tell(Stage& stage, WatchedState& state) = 0;
};

namespace detail {

// A value as TOML, and back; false for a text that is none.
std::string watched_text(const FieldType& type, const void* value);
bool read_watched(const FieldType& type, const std::string& text, void* value);
std::int64_t ticks_of(const Stage& stage);
const Entities& entities_of(const Stage& stage);
bool is_meant(const Stage& stage, Entity thing, const ThingSelector& which);

template <class T>
class WatchedValue final : public Watched {
 public:
  using OnChange = std::function<void(Stage&, const T& before)>;

  WatchedValue(const T& value, OnChange handler)
      : value_(value), last_(value), handler_(std::move(handler)) {}

  void begin(const Stage&, WatchedState& state) override {
    last_ = value_;
    state = {watched_text(field_type<T>(), &last_), {}, -1};
  }
  bool go_on(const WatchedState& state) override {
    return read_watched(field_type<T>(), state.value, &last_);
  }
  bool tell(Stage& stage, WatchedState& state) override {
    if (value_ == last_) return false;
    const T before = std::exchange(last_, value_);
    state.value = watched_text(field_type<T>(), &last_);
    state.changed = ticks_of(stage);
    handler_(stage, before);
    return true;
  }

 private:
  const T& value_;
  T last_;
  OnChange handler_;
};

// The field of a component of all things that are meant. One that comes is not told of.
template <class Component, class T>
class WatchedField final : public Watched {
 public:
  using OnChange = std::function<void(Stage&, Entity, const T& before)>;

  WatchedField(ThingSelector which, T Component::*field, OnChange handler)
      : which_(std::move(which)), field_(field), handler_(std::move(handler)) {}

  void begin(const Stage& stage, WatchedState& state) override {
    last_.clear();
    state = {};
    find_changed(stage, state);
  }
  bool go_on(const WatchedState& state) override {
    last_.clear();
    for (const WatchedThing& each : state.things) {
      One one{each.thing, {}};
      if (!read_watched(field_type<T>(), each.value, &one.value)) return false;
      last_.push_back(std::move(one));
    }
    return true;
  }
  bool tell(Stage& stage, WatchedState& state) override {
    find_changed(stage, state);
    if (changed_.empty()) return false;
    state.changed = ticks_of(stage);
    // A handler may change what is watched.
    const std::vector<One> changed = std::exchange(changed_, {});
    std::exception_ptr thrown;
    for (const One& one : changed) try {
        if (entities_of(stage).alive(one.thing)) handler_(stage, one.thing, one.value);
      } catch (...) {
        if (!thrown) thrown = std::current_exception();
      }
    if (thrown) std::rethrow_exception(thrown);
    return true;
  }

 private:
  struct One {
    Entity thing;
    T value{};
  };

  void find_changed(const Stage& stage, WatchedState& state) {
    const Entities& entities = entities_of(stage);
    for (std::size_t i = last_.size(); i-- > 0;)
      if (!entities.find<Component>(last_[i].thing)) {
        last_.erase(last_.begin() + static_cast<std::ptrdiff_t>(i));
        state.things.erase(state.things.begin() + static_cast<std::ptrdiff_t>(i));
      }
    place_of_.assign(place_of_.size(), nowhere);
    for (std::size_t i = 0; i < last_.size(); ++i) place(last_[i].thing) = i;
    entities.visit<Component>([&](Entity thing, const Component& component) {
      if (entities.removed(thing) || !is_meant(stage, thing, which_)) return;
      const T& value = component.*field_;
      std::size_t& at = place(thing);
      if (at == nowhere) {
        at = last_.size();
        last_.push_back({thing, value});
        state.things.push_back({thing, watched_text(field_type<T>(), &value)});
      } else if (!(last_[at].value == value)) {
        changed_.push_back({thing, std::exchange(last_[at].value, value)});
        state.things[at].value = watched_text(field_type<T>(), &value);
      }
    });
  }
  std::size_t& place(Entity thing) {
    if (thing.index >= place_of_.size()) place_of_.resize(thing.index + 1, nowhere);
    return place_of_[thing.index];
  }

  static constexpr std::size_t nowhere = ~std::size_t{0};

  ThingSelector which_;
  T Component::*field_;
  OnChange handler_;
  std::vector<One> last_, changed_;
  std::vector<std::size_t> place_of_;  // in last_, by the thing's index
};

}  // namespace detail
}  // namespace vole
