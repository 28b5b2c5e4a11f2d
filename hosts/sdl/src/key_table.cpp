#include "key_table.hpp"

#include <string>

namespace vole {
namespace {

struct Pair {
  SDL_Scancode scancode;
  const char* name;
};

constexpr Pair other_keys[] = {{SDL_SCANCODE_GRAVE, "Backquote"},
                               {SDL_SCANCODE_BACKSLASH, "Backslash"},
                               {SDL_SCANCODE_LEFTBRACKET, "BracketLeft"},
                               {SDL_SCANCODE_RIGHTBRACKET, "BracketRight"},
                               {SDL_SCANCODE_COMMA, "Comma"},
                               {SDL_SCANCODE_EQUALS, "Equal"},
                               {SDL_SCANCODE_MINUS, "Minus"},
                               {SDL_SCANCODE_PERIOD, "Period"},
                               {SDL_SCANCODE_APOSTROPHE, "Quote"},
                               {SDL_SCANCODE_SEMICOLON, "Semicolon"},
                               {SDL_SCANCODE_SLASH, "Slash"},
                               {SDL_SCANCODE_LALT, "AltLeft"},
                               {SDL_SCANCODE_RALT, "AltRight"},
                               {SDL_SCANCODE_BACKSPACE, "Backspace"},
                               {SDL_SCANCODE_CAPSLOCK, "CapsLock"},
                               {SDL_SCANCODE_LCTRL, "ControlLeft"},
                               {SDL_SCANCODE_RCTRL, "ControlRight"},
                               {SDL_SCANCODE_RETURN, "Enter"},
                               {SDL_SCANCODE_LGUI, "MetaLeft"},
                               {SDL_SCANCODE_RGUI, "MetaRight"},
                               {SDL_SCANCODE_LSHIFT, "ShiftLeft"},
                               {SDL_SCANCODE_RSHIFT, "ShiftRight"},
                               {SDL_SCANCODE_SPACE, "Space"},
                               {SDL_SCANCODE_TAB, "Tab"},
                               {SDL_SCANCODE_DELETE, "Delete"},
                               {SDL_SCANCODE_END, "End"},
                               {SDL_SCANCODE_HOME, "Home"},
                               {SDL_SCANCODE_INSERT, "Insert"},
                               {SDL_SCANCODE_PAGEDOWN, "PageDown"},
                               {SDL_SCANCODE_PAGEUP, "PageUp"},
                               {SDL_SCANCODE_DOWN, "ArrowDown"},
                               {SDL_SCANCODE_LEFT, "ArrowLeft"},
                               {SDL_SCANCODE_RIGHT, "ArrowRight"},
                               {SDL_SCANCODE_UP, "ArrowUp"},
                               {SDL_SCANCODE_ESCAPE, "Escape"},
                               {SDL_SCANCODE_KP_PLUS, "NumpadAdd"},
                               {SDL_SCANCODE_KP_PERIOD, "NumpadDecimal"},
                               {SDL_SCANCODE_KP_DIVIDE, "NumpadDivide"},
                               {SDL_SCANCODE_KP_ENTER, "NumpadEnter"},
                               {SDL_SCANCODE_KP_MULTIPLY, "NumpadMultiply"},
                               {SDL_SCANCODE_KP_MINUS, "NumpadSubtract"}};

constexpr const char* button_names[] = {
    "south",       "east",          "west",           "north", "select", "",     "start", "stick left",
    "stick right", "shoulder left", "shoulder right", "up",    "down",   "left", "right"};
constexpr const char* axis_names[] = {"stick left x",  "stick left y", "stick right x",
                                      "stick right y", "trigger left", "trigger right"};

std::string numbered(const char* start, int number) {
  return std::string(start).append(std::to_string(number));
}

std::string key_name(SDL_Scancode scancode) {
  if (scancode >= SDL_SCANCODE_A && scancode <= SDL_SCANCODE_Z)
    return std::string("Key") + static_cast<char>('A' + (scancode - SDL_SCANCODE_A));
  if (scancode >= SDL_SCANCODE_1 && scancode <= SDL_SCANCODE_0)
    return numbered("Digit", (scancode - SDL_SCANCODE_1 + 1) % 10);
  if (scancode >= SDL_SCANCODE_KP_1 && scancode <= SDL_SCANCODE_KP_0)
    return numbered("Numpad", (scancode - SDL_SCANCODE_KP_1 + 1) % 10);
  if (scancode >= SDL_SCANCODE_F1 && scancode <= SDL_SCANCODE_F12)
    return numbered("F", scancode - SDL_SCANCODE_F1 + 1);
  for (const Pair& pair : other_keys)
    if (pair.scancode == scancode) return pair.name;
  return {};
}

}  // namespace

std::optional<Control> key_control(SDL_Scancode scancode) {
  return find_control("key " + key_name(scancode));
}

std::optional<Control> letter_control(SDL_Keycode key) {
  if (key < SDLK_a || key > SDLK_z) return std::nullopt;
  return find_control(std::string("letter ") + static_cast<char>('A' + (key - SDLK_a)));
}

std::optional<Control> button_control(std::uint8_t button) {
  return button < std::size(button_names) ? find_control(std::string("pad ") + button_names[button])
                                          : std::nullopt;
}

std::optional<Control> axis_control(std::uint8_t axis) {
  return axis < std::size(axis_names) ? find_control(std::string("pad ") + axis_names[axis]) : std::nullopt;
}

std::optional<Control> mouse_control(std::uint8_t button) {
  constexpr const char* names[] = {"",           "mouse left",   "mouse middle", "mouse right",
                                   "mouse back", "mouse forward"};
  return button < std::size(names) ? find_control(names[button]) : std::nullopt;
}

}  // namespace vole
