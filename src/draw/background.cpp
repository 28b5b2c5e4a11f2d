#include "vole/draw/background.hpp"

#include <algorithm>

#include "vole/base/division.hpp"

namespace vole {
namespace {

void add(DrawList& list, LayerId layer, const Frame& frame, Vec2 at, Vec2 scale, const PictureItem& style) {
  PictureItem item = style;
  const PictureItem shown = show(frame, at);
  item.picture = shown.picture;
  item.from = shown.from;
  item.alpha = shown.alpha;
  item.at = at;
  item.pivot = {-frame.offset.x, -frame.offset.y};  // the frame's top left, not its own pivot
  item.scale = scale;
  list.add(layer, item);
}

struct Steps {
  int first = 0, end = 1;
};

// Which copies of a length, the one numbered 0 at `start`, reach into [0, canvas).
Steps steps(int start, int length, int canvas, bool repeated) {
  if (!repeated) return {0, 1};
  return {static_cast<int>(floor_divide(-start, length)),
          static_cast<int>(ceil_divide(canvas - start, length))};
}

}  // namespace

void draw_repeated(DrawList& list, LayerId layer, const Frame& frame, Vec2 at, Repeat repeat,
                   const PictureItem& style) {
  if (frame.size.x <= 0 || frame.size.y <= 0) return;
  const IVec2 start{to_pixel(at.x), to_pixel(at.y)};
  const IVec2 on_canvas = start - list.corner(layer);
  const bool across = repeat == Repeat::across || repeat == Repeat::both;
  const bool down = repeat == Repeat::down || repeat == Repeat::both;
  const Steps columns = steps(on_canvas.x, frame.size.x, list.size(layer).x, across);
  const Steps rows = steps(on_canvas.y, frame.size.y, list.size(layer).y, down);
  for (int row = rows.first; row < rows.end; ++row)
    for (int column = columns.first; column < columns.end; ++column)
      add(list, layer, frame, Vec2(start + IVec2{column * frame.size.x, row * frame.size.y}), {1, 1}, style);
}

void draw_covering(DrawList& list, LayerId layer, const Frame& frame, const PictureItem& style) {
  if (frame.size.x <= 0 || frame.size.y <= 0) return;
  const Vec2 canvas(list.size(layer));
  const Vec2 size(frame.size);
  const float scale = std::max(canvas.x / size.x, canvas.y / size.y);
  const Vec2 overhang = (canvas - size * scale) * 0.5f;
  const IVec2 corner = list.corner(layer) + IVec2{to_pixel(overhang.x), to_pixel(overhang.y)};
  add(list, layer, frame, Vec2(corner), {scale, scale}, style);
}

}  // namespace vole
