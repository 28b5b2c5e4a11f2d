#include "vole/input/tick_input.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "vole/base/error.hpp"
#include "vole/base/names.hpp"

namespace vole {
namespace {

// A stick this close to its middle counts as let go; the rest of its way is stretched over the whole range.
constexpr float dead_share = 0.2f;
// A stick or trigger bound to an action is pressed beyond half of its way.
constexpr float press_share = 0.5f;

template <class Things>
std::size_t index_of(const Things& things, std::string_view name, std::string_view sort,
                     const FilePosition& asked) {
  const std::size_t index = index_named(things, name);
  if (index == things.size())
    throw Error(asked.file ? asked : FilePosition::whole_file("controls.toml"),
                fmt::format("no {} \"{}\"{}", sort, name, asked.file ? " in controls.toml" : ""),
                did_you_mean(name, names_of(things)));
  return index;
}

void count_up(std::uint8_t& counter) {
  if (counter < std::numeric_limits<std::uint8_t>::max()) ++counter;
}

}  // namespace

TickInput::TickInput(std::shared_ptr<const Controls> controls) {
  use(std::move(controls));
}

void TickInput::use(std::shared_ptr<const Controls> controls) {
  controls_ = std::move(controls);
  actions.resize(controls_ ? controls_->actions.size() : 0);
  axes.resize(controls_ ? controls_->axes.size() : 0);
}

const TickInput::ActionState& TickInput::action_state(std::string_view action,
                                                      const FilePosition& asked) const {
  static const Controls none;
  return actions[index_of(controls_ ? controls_->actions : none.actions, action, "action", asked)];
}

float TickInput::axis(std::string_view axis, const FilePosition& asked) const {
  static const Controls none;
  return static_cast<float>(axes[index_of(controls_ ? controls_->axes : none.axes, axis, "axis", asked)]) /
         100.0f;
}

bool TickInput::has_action(std::string_view action) const {
  return controls_ && find_named(controls_->actions, action) != nullptr;
}

bool TickInput::has_axis(std::string_view axis) const {
  return controls_ && find_named(controls_->axes, axis) != nullptr;
}

InputGather::InputGather(std::shared_ptr<const Controls> controls)
    : controls_(std::move(controls)),
      values_(1, std::vector<float>(control_names().size(), 0.0f)),
      gathered_(controls_),
      latched_(controls_),
      tapped_(controls_->axes.size()) {}

bool InputGather::any_held(const std::vector<Control>& controls) const {
  return std::any_of(controls.begin(), controls.end(),
                     [this](Control control) { return std::abs(value_of(control)) >= press_share; });
}

std::int8_t InputGather::axis_value(const Axis& axis) const {
  float value = (any_held(axis.more) ? 1.0f : 0.0f) - (any_held(axis.less) ? 1.0f : 0.0f);
  for (const Control stick : axis.sticks) {
    const float pushed = value_of(stick);
    const float share = (std::abs(pushed) - dead_share) / (1.0f - dead_share);
    if (share > std::abs(value)) value = pushed < 0 ? -share : share;
  }
  return static_cast<std::int8_t>(std::floor(std::clamp(value, -1.0f, 1.0f) * 100.0f + 0.5f));
}

void InputGather::add(const ControlEvent& event) {
  if (event.control.index >= control_names().size() || !std::isfinite(event.value)) return;
  while (event.device >= values_.size()) values_.emplace_back(control_names().size(), 0.0f);
  float& value = values_[event.device][event.control.index];
  if (value == event.value) return;
  const bool is_press = value <= 0.5f && event.value > 0.5f;
  if (is_press && counted_control_ && counted_control_->index == event.control.index) ++counted_;
  value = event.value;
  take_values();
}

// What is pushed furthest, on whichever device.
float InputGather::value_of(Control control) const {
  float furthest = 0;
  for (const std::vector<float>& device : values_)
    if (std::abs(device[control.index]) > std::abs(furthest)) furthest = device[control.index];
  return furthest;
}

void InputGather::take_values() {
  for (std::size_t i = 0; i < controls_->actions.size(); ++i) {
    TickInput::ActionState& state = gathered_.actions[i];
    const bool held = any_held(controls_->actions[i].controls);
    if (held && !state.held) count_up(state.presses);
    if (!held && state.held) count_up(state.releases);
    state.held = held;
  }
  for (std::size_t i = 0; i < controls_->axes.size(); ++i) {
    gathered_.axes[i] = axis_value(controls_->axes[i]);
    if (gathered_.axes[i] != 0) tapped_[i] = gathered_.axes[i];
  }
}

void InputGather::release(std::uint8_t device) {
  if (device >= values_.size()) return;
  std::fill(values_[device].begin(), values_[device].end(), 0.0f);
  take_values();
}

const TickInput& InputGather::latch() {
  latched_.actions = gathered_.actions;
  for (std::size_t i = 0; i < tapped_.size(); ++i) {
    // A push shorter than a tick still counts for one.
    latched_.axes[i] = gathered_.axes[i] != 0 ? gathered_.axes[i] : tapped_[i];
    tapped_[i] = 0;
  }
  for (TickInput::ActionState& state : gathered_.actions) state.presses = state.releases = 0;
  return latched_;
}

void InputGather::release_all() {
  for (std::vector<float>& device : values_) std::fill(device.begin(), device.end(), 0.0f);
  for (TickInput::ActionState& state : gathered_.actions) state = {};
  std::fill(gathered_.axes.begin(), gathered_.axes.end(), std::int8_t{0});
  std::fill(tapped_.begin(), tapped_.end(), std::int8_t{0});
}

}  // namespace vole
