#include "vole/input/gather.hpp"

#include <algorithm>
#include <cmath>
#include <limits>

#include "vole/base/names.hpp"

namespace vole {
namespace {

// More turns of a wheel between two ticks are not told.
constexpr int most_notches = 100;

void count_up(std::uint8_t& counter) {
  if (counter < std::numeric_limits<std::uint8_t>::max()) ++counter;
}

std::vector<std::vector<Control>> chords_of(const Controls& controls, std::size_t player) {
  std::vector<std::vector<Control>> chords;
  const auto add = [&chords](const std::vector<Chord>& bindings) {
    for (const Chord& binding : bindings)
      if (binding.all.size() > 1) chords.push_back(binding.all);
  };
  for (const Action& action : controls.actions_of(player)) add(action.bindings);
  for (const Axis& axis : controls.axes_of(player))
    for (const auto* bindings : {&axis.less, &axis.more, &axis.up, &axis.down}) add(*bindings);
  return chords;
}

bool holds_all(const std::vector<Control>& larger, const std::vector<Control>& smaller) {
  return std::all_of(smaller.begin(), smaller.end(), [&](Control control) {
    return std::find(larger.begin(), larger.end(), control) != larger.end();
  });
}

Control known(std::string_view name) {
  return *find_control(name);
}

std::int8_t in_hundredths(float value) {
  return static_cast<std::int8_t>(std::floor(std::clamp(value, -1.0f, 1.0f) * 100.0f + 0.5f));
}

// How far a stick is pushed counts from the end of its dead middle on, and is bent as the axis says.
float beyond_dead(float pushed, const Axis& axis) {
  const float share = std::clamp((pushed - axis.dead) / (1 - axis.dead), 0.0f, 1.0f);
  return axis.curve == 1 ? share : std::pow(share, axis.curve);
}

IVec2 pixel_at(Vec2 at) {
  const auto pixel = [](float position) {
    constexpr float most = 32767;
    return std::isfinite(position) ? static_cast<int>(std::floor(std::clamp(position, -most, most))) : 0;
  };
  return {pixel(at.x), pixel(at.y)};
}

}  // namespace

InputGather::InputGather(const Controls& controls)
    : InputGather(std::make_shared<const Controls>(controls)) {}

InputGather::InputGather(std::shared_ptr<const Controls> controls)
    : controls_(std::move(controls)), gathered_(controls_), latched_(controls_) {
  seats_ = seats_for(*controls_);
  fit_devices();
}

std::vector<InputGather::Seat> InputGather::seats_for(const Controls& controls) const {
  std::vector<Seat> seats;
  for (std::size_t player = 0; player < static_cast<std::size_t>(controls.players()); ++player) {
    const std::vector<TickInput::AxisState> at_rest(controls.axes_of(player).size());
    seats.push_back({chords_of(controls, player), at_rest, at_rest});
  }
  return seats;
}

void InputGather::use(std::shared_ptr<const Controls> controls) {
  const std::shared_ptr<const Controls> known = std::exchange(controls_, std::move(controls));
  const TickInput before = std::exchange(gathered_, TickInput(controls_));
  const std::vector<Seat> seats = std::exchange(seats_, seats_for(*controls_));
  if (controls_->pointer) gathered_.seen_pointer = before.seen_pointer;
  gathered_.asked_control = before.asked_control;
  for (std::size_t player = 0; player < std::min(seats.size(), seats_.size()); ++player) {
    const TickInput::Player& was = before.players[player];
    TickInput::Player& now = gathered_.players[player];
    now.pads = was.pads;
    for (std::size_t i = 0; i < now.actions.size(); ++i) {
      const std::size_t same = index_named(known->actions, controls_->actions[i].name);
      if (same < was.actions.size()) now.actions[i] = was.actions[same];
    }
    for (std::size_t i = 0; i < now.axes.size(); ++i) {
      const std::size_t same = index_named(known->axes, controls_->axes[i].name);
      if (same >= was.axes.size()) continue;
      now.axes[i] = was.axes[same];
      seats_[player].pushed[i] = seats[player].pushed[same];
      seats_[player].tapped[i] = seats[player].tapped[same];
    }
  }
  latched_ = TickInput(controls_);
  fit_devices();
  if (!asks_) take_values();
}

void InputGather::fit_devices() {
  devices_.fit(seats_.size(), controls_->areas.size());
  // Areas of the screen are touched as fingers say.
  for (std::size_t i = 0; i < controls_->areas.size(); ++i)
    devices_.set(0, area_control(i), touches(controls_->areas[i].area) ? 1.0f : 0.0f);
}

// A pad that is used for the first time goes to the first player who has none; when all have one, to the first player.
void InputGather::seat(std::uint8_t pad) {
  std::size_t player = 0;
  while (player + 1 < gathered_.players.size() && gathered_.players[player].pads > 0) ++player;
  if (gathered_.players[player].pads > 0) player = 0;
  devices_.give_to(pad, player);
  count_up(gathered_.players[player].pads);
}

void InputGather::add(const ControlEvent& event) {
  const std::optional<float> before = devices_.at(event.device, event.control);
  if (!before || !std::isfinite(event.value) || *before == event.value) return;
  constexpr float press_share = InputDevices::press_share;
  if (devices_.is_free_pad(event.device) && std::abs(event.value) >= press_share) seat(event.device);
  const bool is_press = *before <= press_share && event.value > press_share;
  if (is_press && counted_control_ && *counted_control_ == event.control) ++counted_;
  if (asks_) return note_asked(event);
  devices_.set(event.device, event.control, event.value);
  take_values();
}

void InputGather::ask_for_control(bool asks) {
  if (asks == asks_) return;
  asks_ = asks;
  gathered_.asked_control.clear();
  // What is held is no press before or after it is asked for.
  release_all();
}

void InputGather::note_asked(const ControlEvent& event) {
  const std::vector<float> before = devices_.values(event.device);
  devices_.set(event.device, event.control, event.value);
  if (!gathered_.asked_control.empty()) return;
  if (const auto pressed = devices_.pressed_since(event.device, before))
    gathered_.asked_control = name_of(Chord(*pressed), controls_->areas);
}

void InputGather::press_for_a_moment(Control control) {
  add(ControlEvent{control, 1});
  add(ControlEvent{control, 0});
}

void InputGather::add(const FingerEvent& event) {
  gestures_.take(event);
  press_areas();
  // A tap that is over before the next tick has pointed there.
  const bool touched = !gestures_.fingers().empty();
  if (touched) point_at(gestures_.fingers()[0].at);
  finger_gone_ = !touched;
  pass(0);
}

void InputGather::press_areas() {
  for (std::size_t i = 0; i < controls_->areas.size(); ++i)
    add(ControlEvent{area_control(i), touches(controls_->areas[i].area) ? 1.0f : 0.0f});
}

bool InputGather::touches(const IRect& area) const {
  const auto& fingers = gestures_.fingers();
  return std::any_of(fingers.begin(), fingers.end(),
                     [&](const Gestures::Finger& finger) { return area.contains(pixel_at(finger.at)); });
}

void InputGather::pass(double seconds) {
  gestures_.pass(seconds);
  static const Control first = known("touch tap");
  for (const Gesture gesture : gestures_.take_made())
    press_for_a_moment({static_cast<std::uint16_t>(first.index + static_cast<unsigned>(gesture))});
}

void InputGather::point_at(std::optional<Vec2> at) {
  if (!controls_->pointer) return;
  Pointer& pointer = gathered_.seen_pointer;
  pointer.inside = at.has_value();
  if (at) pointer.at = pixel_at(*at);
}

void InputGather::turn_wheel(IVec2 notches) {
  const IVec2 turned{std::clamp(notches.x, -most_notches, most_notches),
                     std::clamp(notches.y, -most_notches, most_notches)};
  const auto press = [this](std::string_view name, int times) {
    for (int i = 0; i < times; ++i) press_for_a_moment(known(name));
  };
  press("mouse wheel left", -turned.x);
  press("mouse wheel right", turned.x);
  press("mouse wheel up", -turned.y);
  press("mouse wheel down", turned.y);
  if (!controls_->pointer) return;
  IVec2& wheel = gathered_.seen_pointer.wheel;
  wheel = {std::clamp(wheel.x + turned.x, -most_notches, most_notches),
           std::clamp(wheel.y + turned.y, -most_notches, most_notches)};
}

bool InputGather::held(const std::vector<Control>& all, std::size_t player) const {
  return std::all_of(all.begin(), all.end(), [&](Control control) {
    return std::abs(devices_.value_of(control, player)) >= InputDevices::press_share;
  });
}

// What is part of a chord that is held counts for that alone.
bool InputGather::held(const Chord& binding, std::size_t player) const {
  if (!held(binding.all, player)) return false;
  const auto& chords = seats_[player].chords;
  return std::none_of(chords.begin(), chords.end(), [&](const std::vector<Control>& chord) {
    return chord.size() > binding.all.size() && holds_all(chord, binding.all) && held(chord, player);
  });
}

bool InputGather::any_held(const std::vector<Chord>& bindings, std::size_t player) const {
  return std::any_of(bindings.begin(), bindings.end(),
                     [&](const Chord& binding) { return held(binding, player); });
}

TickInput::AxisState InputGather::axis_value(const Axis& axis, std::size_t player) const {
  const auto keys = [&](const std::vector<Chord>& less, const std::vector<Chord>& more) {
    return (any_held(more, player) ? 1.0f : 0.0f) - (any_held(less, player) ? 1.0f : 0.0f);
  };
  Vec2 furthest{keys(axis.less, axis.more), axis.is_flat ? keys(axis.up, axis.down) : 0.0f};
  furthest = at_most_one_long(furthest);
  for (const Control stick : axis.sticks) {
    Vec2 pushed{devices_.value_of(stick, player), 0};
    if (axis.is_flat) pushed.y = devices_.value_of({static_cast<std::uint16_t>(stick.index + 1)}, player);
    const float length = length_of(pushed), share = beyond_dead(length, axis);
    if (share > length_of(furthest)) furthest = pushed * (share / length);
  }
  return {in_hundredths(furthest.x), in_hundredths(furthest.y)};
}

void InputGather::take_values() {
  for (std::size_t player = 0; player < seats_.size(); ++player) take_values(player);
}

void InputGather::take_values(std::size_t player) {
  TickInput::Player& its = gathered_.players[player];
  const std::vector<Action>& actions = controls_->actions_of(player);
  for (std::size_t i = 0; i < actions.size(); ++i) {
    TickInput::ActionState& state = its.actions[i];
    const bool is_held = any_held(actions[i].bindings, player);
    if (is_held && !state.held) count_up(state.presses);
    if (!is_held && state.held) count_up(state.releases);
    state.held = is_held;
  }
  const std::vector<Axis>& axes = controls_->axes_of(player);
  for (std::size_t i = 0; i < axes.size(); ++i) {
    its.axes[i] = axis_value(axes[i], player);
    if (!(its.axes[i] == TickInput::AxisState{})) seats_[player].tapped[i] = its.axes[i];
  }
}

void InputGather::release(std::uint8_t device) {
  if (const auto player = devices_.release(device)) --gathered_.players[*player].pads;
  if (!asks_) take_values();
}

const TickInput& InputGather::latch() {
  latched_.players = gathered_.players;
  latched_.seen_pointer = gathered_.seen_pointer;
  latched_.asked_control = std::exchange(gathered_.asked_control, {});
  gathered_.seen_pointer.wheel = {0, 0};
  if (std::exchange(finger_gone_, false)) gathered_.seen_pointer.inside = false;
  for (std::size_t player = 0; player < seats_.size(); ++player) {
    Seat& seat = seats_[player];
    for (std::size_t i = 0; i < seat.tapped.size(); ++i) {
      const TickInput::AxisState now = gathered_.players[player].axes[i], at_rest{};
      // A push that begins and ends between two ticks still counts for one.
      if (now == at_rest && seat.pushed[i] == at_rest) latched_.players[player].axes[i] = seat.tapped[i];
      seat.pushed[i] = now;
      seat.tapped[i] = at_rest;
    }
    for (TickInput::ActionState& state : gathered_.players[player].actions)
      state.presses = state.releases = 0;
  }
  return latched_;
}

void InputGather::release_all() {
  devices_.release_all();
  gestures_.forget();
  gathered_.seen_pointer.wheel = {0, 0};
  for (std::size_t player = 0; player < seats_.size(); ++player) {
    for (TickInput::ActionState& state : gathered_.players[player].actions) state = {};
    std::fill(gathered_.players[player].axes.begin(), gathered_.players[player].axes.end(),
              TickInput::AxisState{});
    std::fill(seats_[player].tapped.begin(), seats_[player].tapped.end(), TickInput::AxisState{});
    std::fill(seats_[player].pushed.begin(), seats_[player].pushed.end(), TickInput::AxisState{});
  }
}

}  // namespace vole
