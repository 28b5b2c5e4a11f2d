#include "vole/draw/view.hpp"

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <cstring>

#include "blend.hpp"

namespace vole {
namespace {

// Which pixels of the view the middles of pixels of its part fall on, one after the other: in fixed point with 32 bits below the
// point, so that none of them costs a division.
class Sources {
 public:
  Sources(int first, float skipped, float zoom, int length) : last_(length - 1) {
    const double each = 1 / static_cast<double>(zoom);
    at_ = std::llround((static_cast<double>(skipped) + (first + 0.5) * each) * one);
    step_ = std::llround(each * one);
  }
  int next() {
    const auto pixel = static_cast<int>(std::min<std::int64_t>(at_ >> 32, last_));
    at_ += step_;
    return pixel;
  }

 private:
  static constexpr double one = 4294967296.0;

  std::int64_t at_ = 0, step_ = 0, last_ = 0;
};

}  // namespace

void put_view(const Image& picture, const View& view, Image& canvas) {
  const IRect shown = view.part.shared_with(canvas.area());
  if (shown.empty() || picture.empty()) return;
  // Where nothing is behind what it shows, what is on the canvas already shows through.
  const bool opaque = view.sky.a == 255;
  const Colour* above = nullptr;
  int taken = -1;
  const IVec2 first = shown.at - view.part.at;
  Sources rows(first.y, view.skipped.y, view.zoom, picture.size().y);
  for (int y = shown.top(); y < shown.bottom(); ++y) {
    const int row = rows.next();
    Colour* const to = canvas.row(y) + shown.left();
    if (opaque && row == taken) {
      std::memcpy(to, above, static_cast<std::size_t>(shown.size.x) * sizeof(Colour));
      continue;
    }
    const Colour* const from = picture.row(row);
    Sources columns(first.x, view.skipped.x, view.zoom, picture.size().x);
    if (opaque)
      for (int x = 0; x < shown.size.x; ++x) to[x] = from[columns.next()];
    else
      for (int x = 0; x < shown.size.x; ++x) to[x] = over(from[columns.next()], to[x]);
    above = to;
    taken = row;
  }
}

}  // namespace vole
