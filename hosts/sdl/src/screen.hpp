// Shows a finished canvas in a window: through one GL texture, or onto the window's own pixels where there is
// no GL.
#pragma once

#include <memory>

#include "vole/app/host.hpp"

struct SDL_Window;

namespace vole {

class Screen {
 public:
  virtual ~Screen() = default;
  virtual void show(const Image& canvas) = 0;
};

// The window must have been made with the GL flag. nullptr when GL does not work here.
std::unique_ptr<Screen> make_gl_screen(SDL_Window* window, CanvasScaling scaling);
std::unique_ptr<Screen> make_plain_screen(SDL_Window* window, CanvasScaling scaling);

// The bars beside the canvas.
inline constexpr Colour bar_colour{0x1b, 0x1a, 0x26, 0xff};

}  // namespace vole
