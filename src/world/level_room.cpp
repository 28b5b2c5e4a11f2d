// The room of an endless level, and its origin, which moves along with what is there.
#include "level_room.hpp"

#include <algorithm>
#include <utility>

#include "level_cells.hpp"
#include "vole/world/level_now.hpp"

namespace vole {
namespace {

constexpr int block_side = TileGrid::block_side;

}  // namespace

// Such that its own part can lie at either end of it, some whole blocks from where the file has it.
IVec2 room_of(const Level& level) {
  if (!level.endless) return level.cells;
  const LevelSide side = level.endless->side;
  const int most = longest_level / along(side, level.tile_size()), own = along(side, level.cells);
  const int cells = own + (most - own) / block_side * block_side;
  return is_across(side) ? IVec2{cells, level.cells.y} : IVec2{level.cells.x, cells};
}

// A level that goes on to the left or up begins at the far end of its room.
IVec2 first_origin(const Level& level) {
  const LevelSide side = level.endless->side;
  if (is_forward(side)) return {0, 0};
  return way(side, along(side, level.cells) - along(side, room_of(level)));
}

void LevelNow::make_room() {
  if (!endless()) {
    origin_ = {0, 0};
    return;
  }
  const LevelSide side = file().endless->side;
  origin_ = way(side, along(side, origin_) / block_side * block_side);
  cells_->make_room(-origin_ / block_side);
  move_marks();
  refresh_ends({-origin_, file().cells});
  refresh_ends({{0, 0}, cells()});
}

void LevelNow::move_marks() {
  zones_.clear();
  paths_.clear();
  for (const LevelZone& zone : file().zones) zones_.push_back(zone.moved_by(offset()));
  for (const LevelPath& path : file().paths) paths_.push_back(path.moved_by(offset()));
}

// Chooses the edges in the first and last line of a part of the level anew: what is beside them has changed.
void LevelNow::refresh_ends(const IRect& part) {
  const LevelSide side = file().endless->side;
  const IVec2 last = way(side, along(side, part.size) - 1);
  const IVec2 across_only = part.size - last;
  for (std::size_t layer = 0; layer < file().layers.size(); ++layer) {
    if (!cells_->has_own_paint(layer)) continue;
    for (const IRect& line : {IRect{part.at, across_only}, IRect{part.at + last, across_only}})
      for (int y = line.top(); y < line.bottom(); ++y)
        for (int x = line.left(); x < line.right(); ++x) cells_->choose_edge(layer, {x, y}, origin_);
  }
}

IRect LevelNow::extent() const {
  const LevelSide side = file().endless->side;
  const bool forward = is_forward(side);
  // Along the way of the level, whichever side it goes to.
  const auto stretch = [&](const IRect& part) {
    const int from = along(side, part.at), to = along(side, part.at + part.size);
    return forward ? std::pair(from, to) : std::pair(-to, -from);
  };
  const PutPiece* const last = last_piece();
  const int end = stretch(last ? last->area() : IRect{-origin_, file().cells}).second;
  int start = end;
  if (!left_ || !last) start = std::min(start, stretch({-origin_, file().cells}).first);
  for (const PutPiece& piece : pieces_) start = std::min(start, stretch(piece.area()).first);
  const int room = along(side, cells());
  const int low = std::clamp(forward ? start : -end, 0, room);
  const int high = std::clamp(forward ? end : -start, low, room);
  return {way(side, low), cells() - way(side, room - (high - low))};
}

IVec2 LevelNow::room_behind() const {
  const LevelSide side = file().endless->side;
  const IRect there = extent();
  const int free =
      is_forward(side) ? along(side, there.at) : along(side, there.at + there.size) - along(side, cells());
  return way(side, free / block_side * block_side);
}

void LevelNow::move_origin(IVec2 cells) {
  origin_ += cells;
  cells_->move_blocks(-cells / block_side);
  for (PutPiece& piece : pieces_) piece.cell -= cells;
  const std::vector<ChangedCell> changed = std::exchange(changed_, {}).list();
  for (ChangedCell change : changed) {
    if (file().layers[file().layer(change.layer)].parallax == Vec2{1, 1}) change.cell -= cells;
    if (IRect{{0, 0}, this->cells()}.contains(change.cell))
      changed_.set(change.layer, change.cell, change.tile);
  }
  move_marks();
  refresh_ends({{0, 0}, this->cells()});
}

}  // namespace vole
