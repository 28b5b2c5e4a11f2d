#include "vole/input/input_devices.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

namespace vole {
namespace {

struct StickAxis {
  Control axis, less, more;
};
const std::array<StickAxis, 4>& stick_axes() {
  const auto control = [](std::string_view name) { return *find_control(name); };
  static const std::array<StickAxis, 4> all{
      {{control("pad stick left x"), control("pad stick left left"), control("pad stick left right")},
       {control("pad stick left y"), control("pad stick left up"), control("pad stick left down")},
       {control("pad stick right x"), control("pad stick right left"), control("pad stick right right")},
       {control("pad stick right y"), control("pad stick right up"), control("pad stick right down")}}};
  return all;
}
bool is_stick_axis(Control control) {
  return std::any_of(stick_axes().begin(), stick_axes().end(),
                     [control](const StickAxis& stick) { return stick.axis == control; });
}

}  // namespace

std::size_t InputDevices::control_count() const {
  return control_names().size() + areas_;
}

void InputDevices::fit(std::size_t players, std::size_t areas) {
  players_ = players;
  areas_ = areas;
  if (devices_.empty()) devices_.emplace_back();
  for (Device& device : devices_) {
    device.values.resize(control_names().size());  // areas of other controls are other areas
    device.values.resize(control_count(), 0.0f);
    if (device.player && *device.player >= players) device.player.reset();
  }
}

std::optional<float> InputDevices::at(std::uint8_t device, Control control) {
  if (control.index >= control_count()) return {};
  while (device >= devices_.size()) devices_.push_back({std::vector<float>(control_count(), 0.0f), {}});
  return devices_[device].values[control.index];
}

void InputDevices::set(std::uint8_t device, Control control, float value) {
  std::vector<float>& values = devices_[device].values;
  values[control.index] = value;
  for (const StickAxis& stick : stick_axes()) {
    if (!(stick.axis == control)) continue;
    values[stick.less.index] = std::max(-value, 0.0f);
    values[stick.more.index] = std::max(value, 0.0f);
  }
}

std::optional<Control> InputDevices::pressed_since(std::uint8_t device,
                                                   const std::vector<float>& before) const {
  const std::vector<float>& now = devices_[device].values;
  for (std::size_t i = 0; i < before.size(); ++i) {
    const Control control{static_cast<std::uint16_t>(i)};
    if (before[i] <= press_share && now[i] > press_share && !is_stick_axis(control)) return control;
  }
  return {};
}

std::optional<std::size_t> InputDevices::release(std::uint8_t device) {
  if (device >= devices_.size()) return {};
  Device& gone = devices_[device];
  std::fill(gone.values.begin(), gone.values.end(), 0.0f);
  return std::exchange(gone.player, std::nullopt);
}

void InputDevices::release_all() {
  for (Device& device : devices_) std::fill(device.values.begin(), device.values.end(), 0.0f);
}

bool InputDevices::counts(std::size_t device, std::size_t player) const {
  return device == 0 || players_ == 1 || devices_[device].player == player;
}

float InputDevices::value_of(Control control, std::size_t player) const {
  float furthest = 0;
  for (std::size_t i = 0; i < devices_.size(); ++i)
    if (const float value = devices_[i].values[control.index];
        std::abs(value) > std::abs(furthest) && counts(i, player))
      furthest = value;
  return furthest;
}

}  // namespace vole
