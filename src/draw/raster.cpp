#include "vole/draw/raster.hpp"

#include <algorithm>
#include <cstring>

#include "blend.hpp"
#include "draw_picture.hpp"
#include "vole/draw/blur.hpp"
#include "vole/asset/tile_cell.hpp"
#include "vole/base/block_grid.hpp"
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
  const Vec2 size(grid.tile_size);
  const bool in_the_middle = cell.quarters == 1 || cell.quarters == 2;
  const bool at_right = cell.mirrored ? cell.quarters < 2 : in_the_middle;
  const bool at_bottom = cell.mirrored ? in_the_middle : cell.quarters >= 2;
  return {.picture = frame.picture,
          .from = frame.area,
          .alpha = frame.alpha,
          .at = Vec2(corner) + Vec2{at_right ? size.x : 0, at_bottom ? size.y : 0},
          .pivot = -frame.offset,
          .rotation = static_cast<float>(90 * cell.quarters),
          .mirrored = cell.mirrored,
          .tint = grid.tint,
          .opacity = grid.opacity};
}

// Whether a tile hides all of its cell, so that its rows can be copied as they are.
bool is_copied(const TilesItem& grid, const TileCell& cell) {
  const Frame& frame = grid.frames[cell.tile];
  return frame.alpha == Alpha::opaque && cell.upright() && frame.area.size == grid.tile_size &&
         grid.tint == white && grid.opacity >= 1;
}

// Calls visit(cell, number) for each cell of a row, from `first` to `last`, in which there is a tile; whole blocks without
// any are passed over.
template <class Visit>
void visit_row(const TileGrid& cells, int y, int first, int last, const Visit& visit) {
  for (int x = first; x <= last;) {
    const int end = std::min((x | (TileGrid::block_side - 1)) + 1, last + 1);
    if (const TileGrid::Block* const block =
            cells.block(x >> TileGrid::block_bits, y >> TileGrid::block_bits))
      for (; x < end; ++x)
        if (const std::uint16_t number = (*block)[TileGrid::place_in_block(x, y)]) visit(x, number);
    x = end;
  }
}

}  // namespace

void Raster::draw_tiles(const TilesItem& grid, const IRect& clip, IVec2 corner, Image& canvas) {
  if (clip.empty()) return;
  const IVec2 size = grid.tile_size;
  const auto cell_of = [](int pixel, int length) { return static_cast<int>(floor_divide(pixel, length)); };
  const IVec2 first{std::max(cell_of(clip.left() + corner.x, size.x), 0),
                    std::max(cell_of(clip.top() + corner.y, size.y), 0)};
  const IVec2 last{std::min(cell_of(clip.right() - 1 + corner.x, size.x), grid.cells->cells().x - 1),
                   std::min(cell_of(clip.bottom() - 1 + corner.y, size.y), grid.cells->cells().y - 1)};
  for (int y = first.y; y <= last.y; ++y) {
    const int top = y * size.y - corner.y;
    copied_tiles_.clear();
    visit_row(*grid.cells, y, first.x, last.x, [&](int x, std::uint16_t number) {
      const TileCell cell = TileCell::from(number);
      const Frame& frame = grid.frames[cell.tile];
      const int left = x * size.x - corner.x;
      if (left >= clip.left() && left + size.x <= clip.right() && is_copied(grid, cell))
        copied_tiles_.push_back({frame.picture->row(frame.area.top()) + frame.area.left(),
                                 static_cast<std::size_t>(frame.picture->size().x), left});
      else if (frame.picture && !frame.area.empty())
        draw_picture(item_of(grid, cell, {left, top}), clip, canvas, row_);
    });
    copy_tiles(size.x, top, std::max(clip.top() - top, 0), std::min(clip.bottom() - top, size.y), canvas);
  }
}

// Opaque tiles are copied line by line across the whole row of them: memory is then written in one direction.
void Raster::copy_tiles(int width, int top, int first, int end, Image& canvas) {
  for (int y = first; y < end; ++y) {
    Colour* const to = canvas.row(top + y);
    for (const CopiedTile& tile : copied_tiles_) {
      const Colour* const from = tile.pixels + static_cast<std::size_t>(y) * tile.stride;
      if (width == 16)
        std::memcpy(to + tile.left, from, 16 * sizeof(Colour));
      else
        copy_row(to + tile.left, from, width);
    }
  }
}

// Where what belongs to a view is drawn. Its items come one after the other.
Image& Raster::picture_for(const View& view, Image& canvas) {
  if (view_ == &view) return view_picture_;
  finish_view(canvas);
  if (view.is_plain() && view.part == canvas.area()) return canvas;
  view_ = &view;
  view_picture_.resize(view.size);
  view_picture_.fill(view.sky);
  return view_picture_;
}

void Raster::finish_view(Image& canvas) {
  if (view_) put_view(view_picture_, *view_, canvas);
  view_ = nullptr;
}

void Raster::draw(const DrawList& list, Image& canvas) {
  const std::span<const DrawItem> items(list.items());
  const auto draw_items = [&](std::span<const DrawItem> run) {
    draw_run(list, run, picture_for(list.view(run.front().layer), canvas));
  };
  // A list that was not sorted is drawn in the order in which it was filled.
  if (list.runs().empty())
    for (std::size_t i = 0; i < items.size(); ++i) draw_items(items.subspan(i, 1));
  for (const DrawRun& run : list.runs()) draw_items(items.subspan(run.first, run.count));
  finish_view(canvas);
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
    case DrawItem::Type::lighting:
      each([&](const DrawItem& item, const IRect& clip) { light_.draw(*item.lighting, clip, canvas); });
      break;
    case DrawItem::Type::blur:
      each([&](const DrawItem& item, const IRect& clip) {
        blur(canvas, item.box.shared_with(clip), item.blur, blurred_);
      });
      break;
  }
}

}  // namespace vole
