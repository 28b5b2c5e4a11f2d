#include "vole/asset/picture.hpp"

#include <algorithm>

namespace vole {
namespace {

std::uint8_t multiplied(std::uint8_t value, std::uint8_t alpha) {
  const unsigned product = unsigned{value} * alpha + 128;
  return static_cast<std::uint8_t>((product + (product >> 8)) >> 8);
}

}  // namespace

Picture::Picture(const Image& image) : pixels_(image) {
  for (int y = 0; y < pixels_.size().y; ++y) {
    Colour* row = pixels_.row(y);
    for (int x = 0; x < pixels_.size().x; ++x)
      row[x] = {multiplied(row[x].r, row[x].a), multiplied(row[x].g, row[x].a),
                multiplied(row[x].b, row[x].a), row[x].a};
  }
}

Alpha Picture::alpha_of(const IRect& part) const {
  const IRect inside = part.shared_with(area());
  Alpha alpha = inside == part ? Alpha::opaque : Alpha::cutout;
  for (int y = inside.top(); y < inside.bottom(); ++y) {
    for (int x = inside.left(); x < inside.right(); ++x) {
      const std::uint8_t a = row(y)[x].a;
      if (a == 0) alpha = std::max(alpha, Alpha::cutout);
      if (a != 0 && a != 255) return Alpha::blended;
    }
  }
  return alpha;
}

Frame frame_of(const Picture& picture, const IRect& area) {
  return {area, picture.alpha_of(area), &picture, area.size, {0, 0}, {0, 0}};
}

Picture AssetSort<Picture>::load(Loading& loading) {
  return Picture(read_png(loading.path()));
}

}  // namespace vole
