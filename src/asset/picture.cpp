#include "vole/asset/picture.hpp"

#include <algorithm>

#include "vole/asset/asset.hpp"

namespace vole {

Picture::Picture(const Image& image) : pixels_(image) {
  for (int y = 0; y < pixels_.size().y; ++y) {
    Colour* row = pixels_.row(y);
    for (int x = 0; x < pixels_.size().x; ++x) row[x] = premultiplied(row[x]);
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

Picture AssetType<Picture>::load(Loading& loading) {
  return Picture(read_png(loading.path()));
}

}  // namespace vole
