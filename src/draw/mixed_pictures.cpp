#include "vole/draw/mixed_pictures.hpp"

#include <algorithm>
#include <cmath>

#include "blend.hpp"
#include "vole/base/within.hpp"

namespace vole {

void mix_by_fade(const Image& before, const Image& after, float share, Colour through, Image& into) {
  share = brought_within(share, 0, 1);
  const Image& from = share < 0.5f ? before : after;
  const float much = 1 - std::fabs(2 * share - 1);
  const auto part = static_cast<std::uint8_t>(much * 255 + 0.5f);
  const Colour above = premultiplied({through.r, through.g, through.b, multiply(part, through.a)});
  for (int y = 0; y < into.size().y; ++y) {
    copy_row(into.row(y), from.row(y), into.size().x);
    fill_row(into.row(y), into.size().x, above);
  }
}

void mix_by_wipe(const Image& before, const Image& after, float share, Direction direction, Image& into) {
  const IVec2 size = into.size();
  share = brought_within(share, 0, 1);
  const Vec2 way = unit_of(direction);
  const bool across = std::fabs(way.x) > std::fabs(way.y);
  const int covered = static_cast<int>(share * static_cast<float>(across ? size.x : size.y) + 0.5f);
  IRect part{{0, 0}, across ? IVec2{covered, size.y} : IVec2{size.x, covered}};
  if (across ? way.x < 0 : way.y < 0) part.at = size - part.size;
  for (int y = 0; y < size.y; ++y) {
    copy_row(into.row(y), before.row(y), size.x);
    if (y >= part.top() && y < part.bottom())
      copy_row(into.row(y) + part.left(), after.row(y) + part.left(), part.size.x);
  }
}

namespace {

// The largest distance from a point to a corner: a circle of this radius shows all.
float furthest_corner(Vec2 from, IVec2 size) {
  const float x = std::max(std::fabs(from.x), std::fabs(static_cast<float>(size.x) - from.x));
  const float y = std::max(std::fabs(from.y), std::fabs(static_cast<float>(size.y) - from.y));
  return std::sqrt(x * x + y * y) + 1;
}

}  // namespace

void mix_by_iris(const Image& before, const Image& after, float share, Vec2 closes_on, Vec2 opens_from, Colour around,
                 Image& into) {
  const IVec2 size = into.size();
  share = brought_within(share, 0, 1);
  const bool closes = share < 0.5f;
  const Image& from = closes ? before : after;
  const Vec2 middle = brought_within_reach(closes ? closes_on : opens_from);
  const float radius = furthest_corner(middle, size) * std::fabs(2 * share - 1);
  around.a = 255;
  for (int y = 0; y < size.y; ++y) {
    const float down = static_cast<float>(y) + 0.5f - middle.y;
    const float half = radius * radius - down * down;
    std::fill_n(into.row(y), size.x, around);
    if (half <= 0) continue;
    const float reach = std::sqrt(half);
    const int left = std::clamp(ceil_to_int(middle.x - reach - 0.5f), 0, size.x);
    const int right = std::clamp(floor_to_int(middle.x + reach - 0.5f) + 1, left, size.x);
    copy_row(into.row(y) + left, from.row(y) + left, right - left);
  }
}

void mix_by_picture(const Image& before, const Image& after, float share, const Picture& grey, Image& into) {
  const IVec2 size = into.size(), pattern = grey.size();
  // White goes last, when the share is whole.
  const int bright = static_cast<int>(brought_within(share, 0, 1) * 256);
  if (pattern.x <= 0 || pattern.y <= 0) return mix_by_wipe(before, after, share, Direction::right, into);
  for (int y = 0; y < size.y; ++y) {
    const Colour* const greys = grey.row(y % pattern.y);
    for (int x = 0, at = 0; x < size.x; ++x) {
      const Colour pixel = greys[at];
      const bool shows_after = (pixel.r + pixel.g + pixel.b) / 3 < bright;
      into.row(y)[x] = (shows_after ? after : before).row(y)[x];
      if (++at == pattern.x) at = 0;
    }
  }
}

}  // namespace vole
