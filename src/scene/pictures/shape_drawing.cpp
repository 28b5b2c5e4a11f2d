#include "vole/scene/pictures/shape_drawing.hpp"

#include <algorithm>
#include <cmath>

#include "vole/base/trig.hpp"

namespace vole {

// In runs along the axis on which it is longer.
void draw_line(DrawList& list, LayerId layer, Vec2 from, Vec2 to, Colour colour) {
  const Vec2 way = to - from;
  const bool flat = std::abs(way.x) >= std::abs(way.y);
  const int steps = static_cast<int>(std::min(std::max(std::abs(way.x), std::abs(way.y)), 4096.0f));
  Vec2 start = from;
  const auto across = [flat](Vec2 point) { return std::floor(flat ? point.y : point.x); };
  for (int i = 1; i <= steps + 1; ++i) {
    const Vec2 point =
        i > steps ? to : from + way * (static_cast<float>(i) / static_cast<float>(std::max(steps, 1)));
    if (i <= steps && across(point) == across(start)) continue;
    const Vec2 corner{std::floor(std::min(start.x, point.x)), std::floor(std::min(start.y, point.y))};
    const float length = std::max(flat ? std::abs(point.x - start.x) : std::abs(point.y - start.y), 1.0f);
    list.fill(
        layer,
        flat ? Rect{{corner.x, across(start)}, {length, 1}} : Rect{{across(start), corner.y}, {1, length}},
        colour);
    start = point;
  }
}

void draw_shape(DrawList& list, LayerId layer, const Shape& shape, Vec2 at, Colour colour) {
  const std::span<const Vec2> corners = shape.corners();
  if (shape.radius() == 0) {
    for (std::size_t i = 0; i < corners.size(); ++i)
      draw_line(list, layer, at + corners[i], at + corners[(i + 1) % corners.size()], colour);
    return;
  }
  // The furthest point in each of many directions.
  constexpr int parts = 32;
  Vec2 last{0, 0};
  for (int i = 0; i <= parts; ++i) {
    const float angle = 360.0f * static_cast<float>(i) / parts;
    const Vec2 way{cos_degrees(angle), sin_degrees(angle)};
    const auto reach = [way](Vec2 corner) { return corner.x * way.x + corner.y * way.y; };
    const Vec2 corner = *std::max_element(corners.begin(), corners.end(),
                                          [&](Vec2 a, Vec2 b) { return reach(a) < reach(b); });
    const Vec2 point = at + corner + way * shape.radius();
    if (i > 0) draw_line(list, layer, last, point, colour);
    last = point;
  }
}

void draw_cell(DrawList& list, LayerId layer, const SolidGrid& grid, IVec2 cell, Colour colour) {
  const CellForm* const form = grid.form(cell.x, cell.y);
  if (!form) return;
  const std::span<const Vec2> corners = form->shape().corners();
  const Vec2 corner(cell * grid.cell());
  const Vec2 size(grid.cell());
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const Vec2 from = corners[i], to = corners[(i + 1) % corners.size()];
    if (grid.edge_hidden(cell, i)) continue;
    // A pixel further in on the right and below, so that it is within the cell.
    const auto within = [&](Vec2 point) {
      return corner + Vec2{std::min(point.x, size.x - 1), std::min(point.y, size.y - 1)};
    };
    draw_line(list, layer, within(from), within(to), colour);
  }
}

}  // namespace vole
