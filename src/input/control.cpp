#include "vole/input/control.hpp"

#include <algorithm>

namespace vole {
namespace {

constexpr std::string_view key_names[] = {
    "Backquote",     "Backslash",    "BracketLeft", "BracketRight",   "Comma",         "Equal",
    "Minus",         "Period",       "Quote",       "Semicolon",      "Slash",         "AltLeft",
    "AltRight",      "Backspace",    "CapsLock",    "ControlLeft",    "ControlRight",  "Enter",
    "MetaLeft",      "MetaRight",    "ShiftLeft",   "ShiftRight",     "Space",         "Tab",
    "Delete",        "End",          "Home",        "Insert",         "PageDown",      "PageUp",
    "ArrowDown",     "ArrowLeft",    "ArrowRight",  "ArrowUp",        "Escape",        "NumpadAdd",
    "NumpadDecimal", "NumpadDivide", "NumpadEnter", "NumpadMultiply", "NumpadSubtract"};

constexpr std::string_view other_names[] = {"pad south",
                                            "pad east",
                                            "pad west",
                                            "pad north",
                                            "pad up",
                                            "pad down",
                                            "pad left",
                                            "pad right",
                                            "pad start",
                                            "pad select",
                                            "pad shoulder left",
                                            "pad shoulder right",
                                            "pad stick left",
                                            "pad stick right",
                                            "pad trigger left",
                                            "pad trigger right",
                                            "pad stick left x",
                                            "pad stick left y",
                                            "pad stick left left",
                                            "pad stick left right",
                                            "pad stick left up",
                                            "pad stick left down",
                                            "pad stick right x",
                                            "pad stick right y",
                                            "pad stick right left",
                                            "pad stick right right",
                                            "pad stick right up",
                                            "pad stick right down",
                                            "mouse left",
                                            "mouse middle",
                                            "mouse right",
                                            "mouse back",
                                            "mouse forward",
                                            "mouse wheel up",
                                            "mouse wheel down",
                                            "mouse wheel left",
                                            "mouse wheel right",
                                            "touch tap",
                                            "touch hold",
                                            "touch swipe left",
                                            "touch swipe right",
                                            "touch swipe up",
                                            "touch swipe down"};

std::vector<std::string> all_names() {
  std::vector<std::string> names;
  for (char letter = 'A'; letter <= 'Z'; ++letter) names.push_back(std::string("key Key") + letter);
  for (char digit = '0'; digit <= '9'; ++digit) names.push_back(std::string("key Digit") + digit);
  for (char digit = '0'; digit <= '9'; ++digit) names.push_back(std::string("key Numpad") + digit);
  for (char letter = 'A'; letter <= 'Z'; ++letter) names.push_back(std::string("letter ") + letter);
  for (int number = 1; number <= 12; ++number) names.push_back("key F" + std::to_string(number));
  for (const std::string_view name : key_names) names.push_back("key " + std::string(name));
  for (const std::string_view name : other_names) names.emplace_back(name);
  return names;
}

}  // namespace

const std::vector<std::string>& control_names() {
  static const std::vector<std::string> names = all_names();
  return names;
}

std::optional<Control> find_control(std::string_view name) {
  const auto& names = control_names();
  const auto found = std::find(names.begin(), names.end(), name);
  if (found == names.end()) return std::nullopt;
  return Control{static_cast<std::uint16_t>(found - names.begin())};
}

std::string_view name_of(Control control) {
  return control_names().at(control.index);
}

}  // namespace vole
