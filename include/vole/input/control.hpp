// The things a person can press or push, by name: "key Space", "letter Q", "pad south", "pad stick left x", "mouse wheel up",
// "touch swipe left".
//
// Keys are named by where they sit on the keyboard, in the words of the W3C "UI Events KeyboardEvent code
// Values" (KeyA, ArrowLeft, Space, ShiftLeft, ...); letters by what the keyboard's layout has on a key. Pad buttons are named by
// where they sit on the pad. A stick is pushed by two axes, x and y, and to four sides, which are buttons.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace vole {

// An index into control_names(), or beyond them an area of the touch screen that controls.toml has: see controls.hpp. Stable while a
// program runs, and not to be stored.
struct Control {
  std::uint16_t index = 0;

  friend bool operator==(Control, Control) = default;
};

std::optional<Control> find_control(std::string_view name);
std::string_view name_of(Control control);
const std::vector<std::string>& control_names();

// A change of a control: 1 pressed, 0 released; a stick or trigger anything in [-1, 1].
struct ControlEvent {
  Control control;
  float value = 0;
  std::uint8_t device = 0;  // keyboard and mouse; each pad has a number of its own
};

}  // namespace vole
