// Shows a finished canvas in the page's own canvas: through one WebGL texture, or by the 2D calls where there is no WebGL.
#pragma once

#include <memory>

#include "vole/app/host.hpp"

namespace vole {

class PageScreen {
 public:
  virtual ~PageScreen() = default;
  virtual void show(const Image& canvas) = 0;
};

// The element of the page that games draw into.
inline constexpr const char* canvas_element = "#canvas";

// nullptr when WebGL does not work here.
std::unique_ptr<PageScreen> make_webgl_screen(CanvasScaling scaling);
std::unique_ptr<PageScreen> make_2d_screen(CanvasScaling scaling);

// Gives the element as many pixels as the display has where it lies, and says how many.
IVec2 fit_canvas_element();

}  // namespace vole
