// SDL's numbers of keys and buttons as controls.
#pragma once

#include <SDL.h>

#include <optional>

#include "vole/input/control.hpp"

namespace vole {

std::optional<Control> key_control(SDL_Scancode scancode);
// Of the layout: "letter Q".
std::optional<Control> letter_control(SDL_Keycode key);
std::optional<Control> button_control(std::uint8_t button);
std::optional<Control> axis_control(std::uint8_t axis);
std::optional<Control> mouse_control(std::uint8_t button);

}  // namespace vole
