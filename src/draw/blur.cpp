#include "vole/draw/blur.hpp"

#include <algorithm>

namespace vole {
namespace {

// The sums of a window that moves along a line of pixels.
struct Sums {
  unsigned r = 0, g = 0, b = 0, a = 0;

  void add(Colour pixel) {
    r += pixel.r;
    g += pixel.g;
    b += pixel.b;
    a += pixel.a;
  }
  void remove(Colour pixel) {
    r -= pixel.r;
    g -= pixel.g;
    b -= pixel.b;
    a -= pixel.a;
  }
  Colour mean(unsigned count) const {
    const auto part = [count](unsigned sum) { return static_cast<std::uint8_t>((sum + count / 2) / count); };
    return {part(r), part(g), part(b), part(a)};
  }
};

// `from(i)` is pixel i of a line, `to(i)` where its mean goes.
template <class From, class To>
void blur_line(int length, int pixels, const From& from, const To& to) {
  const auto inside = [&](int i) { return from(std::clamp(i, 0, length - 1)); };
  Sums sums;
  for (int i = -pixels; i <= pixels; ++i) sums.add(inside(i));
  for (int i = 0; i < length; ++i) {
    to(i) = sums.mean(static_cast<unsigned>(2 * pixels + 1));
    sums.add(inside(i + pixels + 1));
    sums.remove(inside(i - pixels));
  }
}

}  // namespace

void blur(Image& canvas, const IRect& box, int pixels, Image& memory) {
  const IRect part = box.shared_with(canvas.area());
  pixels = std::clamp(pixels, 0, 255);
  if (part.empty() || pixels == 0) return;
  memory.resize(part.size);
  for (int y = 0; y < part.size.y; ++y) {
    const Colour* const row = canvas.row(part.top() + y) + part.left();
    blur_line(
        part.size.x, pixels, [&](int x) { return row[x]; },
        [&](int x) -> Colour& { return memory.row(y)[x]; });
  }
  for (int x = 0; x < part.size.x; ++x)
    blur_line(
        part.size.y, pixels, [&](int y) { return memory.row(y)[x]; },
        [&](int y) -> Colour& { return canvas.row(part.top() + y)[part.left() + x]; });
}

}  // namespace vole
