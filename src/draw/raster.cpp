#include "vole/draw/raster.hpp"

#include <algorithm>
#include <cstring>

#include "blend.hpp"
#include "draw_picture.hpp"
#include "vole/base/division.hpp"

namespace vole {
namespace {

void fill_box(const IRect& box, const IRect& clip, Colour colour, Image& canvas) {
  const IRect shown = box.shared_with(clip);
  if (shown.empty()) return;
  for (int y = shown.top(); y < shown.bottom(); ++y)
    fill_row(canvas.row(y) + shown.left(), shown.size.x, colour);
}

void outline_box(const IRect& box, const IRect& clip, Colour colour, Image& canvas) {
  if (box.size.x <= 2 || box.size.y <= 2) return fill_box(box, clip, colour, canvas);
  const int inner = box.size.y - 2;
  fill_box({box.at, {box.size.x, 1}}, clip, colour, canvas);
  fill_box({{box.left(), box.bottom() - 1}, {box.size.x, 1}}, clip, colour, canvas);
  fill_box({{box.left(), box.top() + 1}, {1, inner}}, clip, colour, canvas);
  fill_box({{box.right() - 1, box.top() + 1}, {1, inner}}, clip, colour, canvas);
}

// The picture of one cell, which may be mirrored and turned: around the tile's corner, which then lies elsewhere in the cell.
PictureItem item_of(const TilesItem& grid, const TileCell& cell, IVec2 corner) {
  const Frame& frame = grid.frames[cell.tile];
  const auto size = static_cast<float>(grid.tile_size);
  const bool in_the_middle = cell.quarters == 1 || cell.quarters == 2;
  const bool at_right = cell.mirrored ? cell.quarters < 2 : in_the_middle;
  const bool at_bottom = cell.mirrored ? in_the_middle : cell.quarters >= 2;
  return {.picture = grid.picture,
          .from = frame.area,
          .alpha = frame.alpha,
          .at = Vec2(corner) + Vec2{at_right ? size : 0, at_bottom ? size : 0},
          .rotation = static_cast<float>(90 * cell.quarters),
          .flip_x = cell.mirrored};
}

}  // namespace

void Raster::draw_tiles(const TilesItem& grid, const IRect& clip, IVec2 corner, Image& canvas) {
  const int size = grid.tile_size;
  if (clip.empty()) return;
  const auto cell_of = [size](int pixel) { return static_cast<int>(floor_divide(pixel, size)); };
  const IVec2 first{std::max(cell_of(clip.left() + corner.x), 0),
                    std::max(cell_of(clip.top() + corner.y), 0)};
  const IVec2 last{std::min(cell_of(clip.right() - 1 + corner.x), grid.cells.x - 1),
                   std::min(cell_of(clip.bottom() - 1 + corner.y), grid.cells.y - 1)};
  for (int cell_y = first.y; cell_y <= last.y; ++cell_y) {
    const int top = cell_y * size - corner.y;
    const int from_row = std::max(clip.top() - top, 0);
    const int end_row = std::min(clip.bottom() - top, size);
    const std::uint16_t* row =
        grid.tiles + static_cast<std::size_t>(cell_y) * static_cast<std::size_t>(grid.cells.x);
    opaque_rows_.clear();
    for (int cell_x = first.x; cell_x <= last.x; ++cell_x) {
      const std::uint16_t tile = row[cell_x];
      opaque_rows_.push_back(nullptr);
      if (tile == 0) continue;
      const TileCell cell = TileCell::from(tile);
      const Frame& frame = grid.frames[cell.tile];
      const int left = cell_x * size - corner.x;
      const bool whole = left >= clip.left() && left + size <= clip.right();
      if (frame.alpha == Alpha::opaque && whole && cell.upright()) {
        opaque_rows_.back() = grid.picture->row(frame.area.top()) + frame.area.left();
        continue;
      }
      draw_picture(item_of(grid, cell, {left, top}), clip, canvas, row_);
    }
    // Opaque tiles are copied line by line across the whole row of them: memory is then written in one
    // direction.
    const std::size_t stride = static_cast<std::size_t>(grid.picture->size().x);
    for (int y = from_row; y < end_row; ++y) {
      Colour* to = canvas.row(top + y) + (first.x * size - corner.x);
      const std::size_t skip = static_cast<std::size_t>(y) * stride;
      for (const Colour* pixels : opaque_rows_) {
        if (pixels && size == 16)
          std::memcpy(to, pixels + skip, 16 * sizeof(Colour));
        else if (pixels)
          copy_row(to, pixels + skip, size);
        to += size;
      }
    }
  }
}

void Raster::draw(const DrawList& list, Image& canvas) {
  // A list that was not sorted is drawn in the order in which it was filled.
  const std::vector<DrawItem>& items = list.items();
  if (list.runs().empty())
    for (const DrawItem& item : items) draw_run(list, std::span(&item, 1), canvas);
  for (const DrawRun& run : list.runs())
    draw_run(list, std::span(items.data() + run.first, run.count), canvas);
}

void Raster::draw_run(const DrawList& list, std::span<const DrawItem> items, Image& canvas) {
  const auto each = [&](const auto& draw_one) {
    for (const DrawItem& item : items) draw_one(item, item.clip.shared_with(canvas.area()));
  };
  switch (items.front().type) {
    case DrawItem::Type::picture:
      each([&](const DrawItem& item, const IRect& clip) { draw_picture(item.picture, clip, canvas, row_); });
      break;
    case DrawItem::Type::fill:
      each([&](const DrawItem& item, const IRect& clip) {
        fill_box(item.box, clip, premultiplied(item.picture.tint), canvas);
      });
      break;
    case DrawItem::Type::outline:
      each([&](const DrawItem& item, const IRect& clip) {
        outline_box(item.box, clip, premultiplied(item.picture.tint), canvas);
      });
      break;
    case DrawItem::Type::tiles:
      each([&](const DrawItem& item, const IRect& clip) {
        draw_tiles(item.tiles, clip, list.corner(item.layer), canvas);
      });
      break;
  }
}

}  // namespace vole
