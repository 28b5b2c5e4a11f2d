#include "page_input.hpp"

#include <emscripten/html5.h>

#include <algorithm>
#include <utility>

namespace vole {
namespace {

// Gamepad (W3C), "standard gamepad".
constexpr const char* button_names[] = {"pad south",        "pad east",          "pad west",
                                        "pad north",        "pad shoulder left", "pad shoulder right",
                                        "pad trigger left", "pad trigger right", "pad select",
                                        "pad start",        "pad stick left",    "pad stick right",
                                        "pad up",           "pad down",          "pad left",
                                        "pad right"};
constexpr const char* axis_names[] = {"pad stick left x", "pad stick left y", "pad stick right x",
                                      "pad stick right y"};

constexpr std::string_view scrolling_keys[] = {"Space",   "Tab",       "Backspace", "Quote",     "Slash",
                                               "ArrowUp", "Home",      "End",       "PageUp",    "PageDown",
                                               "Enter",   "ArrowDown", "ArrowLeft", "ArrowRight"};

std::uint8_t device_of(int pad) {
  return static_cast<std::uint8_t>(pad + 1);  // 0 is the keyboard
}

}  // namespace

bool page_would_use(std::string_view code) {
  return std::find(std::begin(scrolling_keys), std::end(scrolling_keys), code) != std::end(scrolling_keys);
}

void PageInput::put(std::string_view control, float value, std::uint8_t device) {
  if (const auto found = find_control(control)) events_.push_back(ControlEvent{*found, value, device});
}

void PageInput::put_letter(std::string_view code, std::string_view typed, bool down) {
  if (const auto held = letters_.find(code); held != letters_.end()) {
    put(std::string("letter ") + held->second, 0);
    letters_.erase(held);
  }
  const char letter = typed.size() == 1 ? static_cast<char>(typed[0] & ~0x20) : '\0';
  if (!down || letter < 'A' || letter > 'Z') return;
  letters_.emplace(code, letter);
  put(std::string("letter ") + letter, 1);
}

void PageInput::ask_pads() {
  if (emscripten_sample_gamepad_data() != EMSCRIPTEN_RESULT_SUCCESS) return;
  for (int i = 0; i < most_pads; ++i) ask_pad(i);
}

void PageInput::ask_pad(int index) {
  Pad& pad = pads_[static_cast<std::size_t>(index)];
  EmscriptenGamepadEvent now{};
  const bool there = emscripten_get_gamepad_status(index, &now) == EMSCRIPTEN_RESULT_SUCCESS && now.connected;
  if (!there) {
    if (pad.connected) gone_.push_back(device_of(index));
    pad = {};
    return;
  }
  pad.connected = true;
  for (int i = 0; i < std::min(buttons, now.numButtons); ++i) {
    float& before = pad.button[static_cast<std::size_t>(i)];
    const auto value = static_cast<float>(now.analogButton[i]);
    if (value != std::exchange(before, value)) put(button_names[i], value, device_of(index));
  }
  for (int i = 0; i < std::min(axes, now.numAxes); ++i) {
    float& before = pad.axis[static_cast<std::size_t>(i)];
    const auto value = static_cast<float>(now.axis[i]);
    if (value != std::exchange(before, value)) put(axis_names[i], value, device_of(index));
  }
}

void PageInput::hand_over(InputGather& gather) {
  for (const auto& event : events_) {
    if (const auto* const control = std::get_if<ControlEvent>(&event)) gather.add(*control);
    if (const auto* const finger = std::get_if<FingerEvent>(&event)) gather.add(*finger);
    if (const auto* const points = std::get_if<PointsAt>(&event)) gather.point_at(points->at);
    if (const auto* const wheel = std::get_if<Wheel>(&event)) gather.turn_wheel(wheel->notches);
  }
  events_.clear();
  for (const std::uint8_t device : gone_) gather.release(device);
  gone_.clear();
  if (!std::exchange(let_go_, false)) return;
  letters_.clear();
  gather.release_all();
}

}  // namespace vole
