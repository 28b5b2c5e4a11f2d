// How far each control of each device is pushed, and whose pad each device is. The first device is keyboard, mouse and touch screen,
// which are everybody's; the others are pads.
#pragma once

#include <cstddef>
#include <cstdint>
#include <optional>
#include <vector>

#include "vole/input/control.hpp"

namespace vole {

class InputDevices {
 public:
  // A button, a stick or a trigger counts as pressed beyond half of its way.
  static constexpr float press_share = 0.5f;

  // For so many players and areas of the screen from now on: pads of players that are there no more are nobody's.
  void fit(std::size_t players, std::size_t areas);

  // How far a control is pushed, -1 to 1; nothing where there is no such control.
  std::optional<float> at(std::uint8_t device, Control control);
  // Pushes it so far. A stick that is pushed to a side presses that side.
  void set(std::uint8_t device, Control control, float value);
  // What became pressed on this device since its values were these; the axis of a stick is no press, but the side that it is pushed to.
  std::optional<Control> pressed_since(std::uint8_t device, const std::vector<float>& before) const;
  const std::vector<float>& values(std::uint8_t device) const { return devices_[device].values; }

  // A pad that nobody has.
  bool is_free_pad(std::uint8_t device) const { return device > 0 && !devices_[device].player; }
  void give_to(std::uint8_t device, std::size_t player) { devices_[device].player = player; }
  // Lets go of all on one device; a pad is nobody's then. Whose it was.
  std::optional<std::size_t> release(std::uint8_t device);
  // Lets go of all on every device, which stay whose they are.
  void release_all();

  // What is pushed furthest, on whichever of this player's devices. All are the only player's.
  float value_of(Control control, std::size_t player) const;

 private:
  struct Device {
    std::vector<float> values;          // of every control
    std::optional<std::size_t> player;  // whose pad it is
  };
  std::size_t control_count() const;
  bool counts(std::size_t device, std::size_t player) const;

  std::vector<Device> devices_;
  std::size_t players_ = 1;
  std::size_t areas_ = 0;
};

}  // namespace vole
