#include "draw_picture.hpp"

#include <algorithm>
#include <cmath>

#include "blend.hpp"
#include "vole/base/division.hpp"
#include "vole/base/trig.hpp"

namespace vole {
namespace {

constexpr std::int64_t one = 65536;

// Cut off towards 0: a step that is too long would run out of pixels before the item's far edge.
std::int64_t fixed(double value) {
  return static_cast<std::int64_t>(value * one);
}

// The range [first, end) of x for which 0 <= start + x * step < limit, cut to the range given.
void narrow(std::int64_t start, std::int64_t step, std::int64_t limit, std::int64_t& first,
            std::int64_t& end) {
  if (step == 0) {
    if (start < 0 || start >= limit) end = first;
    return;
  }
  if (step > 0) {
    first = std::max(first, ceil_divide(-start, step));
    end = std::min(end, ceil_divide(limit - start, step));
  } else {
    first = std::max(first, floor_divide(limit - start, step) + 1);
    end = std::min(end, floor_divide(-start, step) + 1);
  }
}

// How a fetched pixel reaches the canvas.
struct Copy {
  void operator()(Colour& to, Colour pixel) const { to = pixel; }
};
struct CopyCutout {
  void operator()(Colour& to, Colour pixel) const {
    if (pixel.a != 0) to = pixel;
  }
};
struct BlendOver {
  void operator()(Colour& to, Colour pixel) const {
    if (pixel.a == 255)
      to = pixel;
    else if (pixel.a != 0)
      to = over(pixel, to);
  }
};
struct BlendTinted {
  Colour by;
  void operator()(Colour& to, Colour pixel) const { to = over(tinted(pixel, by), to); }
};
// All that an item may ask for, one after the other.
struct BlendAny {
  Colour by;
  Colour flash;
  Blend blend;
  void operator()(Colour& to, Colour pixel) const {
    const Colour shaded = tinted(flashed(pixel, flash), by);
    to = blend == Blend::over  ? over(shaded, to)
         : blend == Blend::add ? added(shaded, to)
                               : multiplied_by(shaded, to);
  }
};

// Nothing but tint and opacity: rows may go the fast ways.
bool is_plain(const PictureItem& item) {
  return item.blend == Blend::over && item.flash.a == 0;
}

template <class Work>
void with_operation(const PictureItem& item, const Work& work) {
  const Colour by = multiplier_of(item);
  if (!is_plain(item))
    work(BlendAny{by, item.flash, item.blend});
  else if (by != white)
    work(BlendTinted{by});
  else if (item.alpha == Alpha::opaque)
    work(Copy{});
  else if (item.alpha == Alpha::cutout)
    work(CopyCutout{});
  else
    work(BlendOver{});
}

// Calls work(put), where put(to, from, count) brings a row of pixels onto the canvas in the cheapest way that
// is right for the item. The choice is made once for all rows.
template <class Work>
void with_row_operation(const PictureItem& item, const Work& work) {
  const Colour by = multiplier_of(item);
  if (!is_plain(item)) {
    const BlendAny put{by, item.flash, item.blend};
    work([put](Colour* to, const Colour* from, int count) {
      for (int x = 0; x < count; ++x) put(to[x], from[x]);
    });
  } else if (by != white) {
    work([by](Colour* to, const Colour* from, int count) { tinted_over_row(to, from, count, by); });
  } else if (item.alpha == Alpha::opaque) {
    work([](Colour* to, const Colour* from, int count) { copy_row(to, from, count); });
  } else {
    work([](Colour* to, const Colour* from, int count) { over_row(to, from, count); });
  }
}

// The rows of a canvas are far apart in memory, and the processor does not guess the next one: asked for a few rows
// ahead it is there in time (measured: blended sprites of 32 x 32 pixels take half the
// time).
constexpr int rows_ahead = 6;
void ask_for(const Colour* row, int count) {
#if defined(__GNUC__)
  constexpr int line = 16;  // pixels in a line of the cache
  for (int x = 0; x < count; x += line) __builtin_prefetch(row + x, 1);
  __builtin_prefetch(row + count - 1, 1);
#else
  static_cast<void>(row), static_cast<void>(count);
#endif
}

// A frame in its own size: rows are copied or blended whole.
void draw_upright(const PictureItem& item, const IRect& clip, Image& canvas) {
  const IVec2 size = item.from.size;
  const IVec2 pivot{item.mirrored ? size.x - item.pivot.x : item.pivot.x,
                    item.upside_down ? size.y - item.pivot.y : item.pivot.y};
  const IRect whole{{static_cast<int>(item.at.x) - pivot.x, static_cast<int>(item.at.y) - pivot.y}, size};
  const IRect shown = whole.shared_with(clip);
  if (shown.empty()) return;
  const int skip = shown.left() - whole.left();
  const auto row_from = [&](int y) {
    const int row = item.upside_down ? size.y - 1 - (y - whole.top()) : y - whole.top();
    return item.picture->row(item.from.top() + row) + item.from.left();
  };
  if (item.mirrored) {
    with_operation(item, [&](const auto& put) {
      for (int y = shown.top(); y < shown.bottom(); ++y) {
        const Colour* const mirrored = row_from(y) + size.x - 1 - skip;
        Colour* const to = canvas.row(y) + shown.left();
        for (int x = 0; x < shown.size.x; ++x) put(to[x], mirrored[-x]);
      }
    });
  } else {
    with_row_operation(item, [&](const auto& put) {
      int asked = shown.top();
      for (int y = shown.top(); y < shown.bottom(); ++y) {
        for (; asked <= y + rows_ahead && asked < shown.bottom(); ++asked)
          ask_for(canvas.row(asked) + shown.left(), shown.size.x);
        put(canvas.row(y) + shown.left(), row_from(y) + skip, shown.size.x);
      }
    });
  }
}

// The rows of the canvas that a turned or scaled frame can reach.
IRect reach_of(const PictureItem& item) {
  const float s = sin_degrees(item.rotation);
  const float c = cos_degrees(item.rotation);
  const IVec2 size = item.from.size;
  float left = 1e9f, top = 1e9f, right = -1e9f, bottom = -1e9f;
  for (const IVec2 corner : {IVec2{0, 0}, IVec2{size.x, 0}, IVec2{0, size.y}, size}) {
    const float x =
        static_cast<float>(corner.x - item.pivot.x) * item.scale.x * (item.mirrored ? -1.0f : 1.0f);
    const float y =
        static_cast<float>(corner.y - item.pivot.y) * item.scale.y * (item.upside_down ? -1.0f : 1.0f);
    left = std::min(left, item.at.x + c * x - s * y);
    right = std::max(right, item.at.x + c * x - s * y);
    top = std::min(top, item.at.y + s * x + c * y);
    bottom = std::max(bottom, item.at.y + s * x + c * y);
  }
  const IVec2 start{static_cast<int>(left) - 2, static_cast<int>(top) - 2};
  return {start, {static_cast<int>(right) + 3 - start.x, static_cast<int>(bottom) + 3 - start.y}};
}

// Not turned: each row is fetched once into `scratch` and put as often as it is shown.
void draw_scaled(const PictureItem& item, const IRect& clip, Image& canvas, std::vector<Colour>& scratch) {
  const PixelMap map = pixel_map(item);
  const IRect shown = reach_of(item).shared_with(clip);
  std::int64_t first = shown.left(), end = shown.right();
  narrow(map.start_u, map.across_u, item.from.size.x * one, first, end);
  if (first >= end) return;
  const auto count = static_cast<std::size_t>(end - first);
  if (scratch.size() < count) scratch.resize(count);
  with_row_operation(item, [&](const auto& put) {
    std::int64_t fetched = -1;
    for (int y = shown.top(); y < shown.bottom(); ++y) {
      const std::int64_t v = (map.start_v + y * map.down_v) >> 16;
      if (v < 0 || v >= item.from.size.y) continue;
      if (v != fetched) {
        const Colour* const from =
            item.picture->row(item.from.top() + static_cast<int>(v)) + item.from.left();
        std::int64_t u = map.start_u + first * map.across_u;
        for (std::size_t i = 0; i < count; ++i, u += map.across_u) scratch[i] = from[u >> 16];
        fetched = v;
      }
      put(canvas.row(y) + first, scratch.data(), static_cast<int>(count));
    }
  });
}

void draw_turned(const PictureItem& item, const IRect& clip, Image& canvas) {
  const PixelMap map = pixel_map(item);
  const IRect shown = reach_of(item).shared_with(clip);
  const std::int64_t limit_u = item.from.size.x * one;
  const std::int64_t limit_v = item.from.size.y * one;
  const Colour* const pixels = item.picture->row(item.from.top()) + item.from.left();
  const std::int64_t stride = item.picture->size().x;
  with_operation(item, [&](const auto& put) {
    for (int y = shown.top(); y < shown.bottom(); ++y) {
      const std::int64_t row_u = map.start_u + y * map.down_u;
      const std::int64_t row_v = map.start_v + y * map.down_v;
      std::int64_t first = shown.left();
      std::int64_t end = shown.right();
      narrow(row_u, map.across_u, limit_u, first, end);
      narrow(row_v, map.across_v, limit_v, first, end);
      if (first >= end) continue;
      // Within the frame u and v fit into 31 bits, which makes the inner loop cheaper.
      auto u = static_cast<std::int32_t>(row_u + first * map.across_u);
      auto v = static_cast<std::int32_t>(row_v + first * map.across_v);
      const auto step_u = static_cast<std::int32_t>(map.across_u);
      const auto step_v = static_cast<std::int32_t>(map.across_v);
      Colour* to = canvas.row(y);
      for (std::int64_t x = first; x < end; ++x) {
        put(to[x], pixels[(v >> 16) * stride + (u >> 16)]);
        u = static_cast<std::int32_t>(static_cast<std::uint32_t>(u) + static_cast<std::uint32_t>(step_u));
        v = static_cast<std::int32_t>(static_cast<std::uint32_t>(v) + static_cast<std::uint32_t>(step_v));
      }
    }
  });
}

}  // namespace

void draw_picture(const PictureItem& item, const IRect& clip, Image& canvas, std::vector<Colour>& scratch) {
  // A part that reaches outside its picture (a picture that became smaller) has nothing there to show.
  if (!(item.from.shared_with(item.picture->area()) == item.from) || item.from.empty()) return;
  const bool upright = item.rotation == 0 && item.scale == Vec2{1, 1};
  if (upright)
    draw_upright(item, clip, canvas);
  else if (item.from.size.x >= 32768 || item.from.size.y >= 32768)
    return;
  else if (item.rotation == 0)
    draw_scaled(item, clip, canvas, scratch);
  else
    draw_turned(item, clip, canvas);
}

PixelMap pixel_map(const PictureItem& item) {
  const double c = cos_degrees(item.rotation);
  const double s = sin_degrees(item.rotation);
  const double scale_x = item.scale.x * (item.mirrored ? -1.0 : 1.0);
  const double scale_y = item.scale.y * (item.upside_down ? -1.0 : 1.0);
  PixelMap map;
  map.across_u = fixed(c / scale_x);
  map.down_u = fixed(s / scale_x);
  map.across_v = fixed(-s / scale_y);
  map.down_v = fixed(c / scale_y);
  // From the pivot to the middle of the canvas's first pixel, in halves of a pixel.
  const std::int64_t x2 = 1 - 2 * static_cast<std::int64_t>(item.at.x);
  const std::int64_t y2 = 1 - 2 * static_cast<std::int64_t>(item.at.y);
  map.start_u = item.pivot.x * one + floor_divide(map.across_u * x2 + map.down_u * y2, 2);
  map.start_v = item.pivot.y * one + floor_divide(map.across_v * x2 + map.down_v * y2, 2);
  return map;
}

Colour multiplier_of(const PictureItem& item) {
  const float opacity = std::clamp(item.opacity, 0.0f, 1.0f);
  const auto share = static_cast<std::uint8_t>(opacity * 255.0f + 0.5f);
  Colour tint = item.tint;
  tint.a = multiply(tint.a, share);
  return premultiplied(tint);
}

}  // namespace vole
