#include "vole/draw/view.hpp"

#include <algorithm>
#include <cstring>

namespace vole {
namespace {

// The pixel of the view that the middle of a pixel of its part falls on.
int source(int pixel, float skipped, float zoom, int length) {
  const double at = static_cast<double>(skipped) + (pixel + 0.5) / static_cast<double>(zoom);
  return std::clamp(static_cast<int>(at), 0, length - 1);
}

}  // namespace

void put_view(const Image& picture, const View& view, Image& canvas) {
  const IRect shown = view.part.shared_with(canvas.area());
  if (shown.empty() || picture.empty()) return;
  const Colour* above = nullptr;
  int taken = -1;
  for (int y = shown.top(); y < shown.bottom(); ++y) {
    const int row = source(y - view.part.top(), view.skipped.y, view.zoom, picture.size().y);
    Colour* const to = canvas.row(y) + shown.left();
    if (row == taken) {
      std::memcpy(to, above, static_cast<std::size_t>(shown.size.x) * sizeof(Colour));
      continue;
    }
    const Colour* const from = picture.row(row);
    const int first = shown.left() - view.part.left();
    for (int x = 0; x < shown.size.x; ++x)
      to[x] = from[source(first + x, view.skipped.x, view.zoom, picture.size().x)];
    above = to;
    taken = row;
  }
}

}  // namespace vole
