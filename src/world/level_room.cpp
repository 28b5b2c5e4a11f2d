// The room of an endless level, and its origin, which moves along with what is there.
#include "level_room.hpp"

#include <algorithm>

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
  cells_ = room_of(*version_);
  if (!version_->endless) {
    origin_ = {0, 0};
    return;
  }
  const LevelSide side = version_->endless->side;
  origin_ = way(side, along(side, origin_) / block_side * block_side);
  const IVec2 blocks = -origin_ / block_side;
  solid_ = version_->solid;
  solid_->grow(cells_);
  solid_->move_blocks(blocks);
  for (std::size_t i = 0; i < version_->layers.size(); ++i) {
    const LevelLayer& layer = version_->layers[i];
    // What does not go along with the level has no part in its coming and going.
    if (layer.parallax != Vec2{1, 1}) continue;
    tiles_[i] = layer.tiles;
    painted_[i] = layer.painted;
    tiles_[i]->grow(cells_);
    painted_[i]->grow(cells_);
    tiles_[i]->move_blocks(blocks);
    painted_[i]->move_blocks(blocks);
  }
  move_marks();
  refresh_ends({-origin_, version_->cells});
  refresh_ends({{0, 0}, cells_});
}

void LevelNow::move_marks() {
  zones_.clear();
  paths_.clear();
  for (const LevelZone& zone : version_->zones) zones_.push_back(zone.moved_by(offset()));
  for (const LevelPath& path : version_->paths) paths_.push_back(path.moved_by(offset()));
}

// Chooses the edges in the first and last line of a part of the level anew: what is beside them has changed.
void LevelNow::refresh_ends(const IRect& part) {
  const LevelSide side = version_->endless->side;
  const IVec2 last = way(side, along(side, part.size) - 1);
  const IVec2 across_only = part.size - last;
  for (std::size_t layer = 0; layer < version_->layers.size(); ++layer) {
    if (!painted_[layer]) continue;
    for (const IRect& line : {IRect{part.at, across_only}, IRect{part.at + last, across_only}})
      for (int y = line.top(); y < line.bottom(); ++y)
        for (int x = line.left(); x < line.right(); ++x) choose_edge(layer, {x, y});
  }
}

IRect LevelNow::extent() const {
  const LevelSide side = version_->endless->side;
  int start = along(side, cells_), end = 0;
  const auto take = [&](const IRect& part) {
    start = std::min(start, along(side, part.at));
    end = std::max(end, along(side, part.at + part.size));
  };
  if (!left_) take({-origin_, version_->cells});
  for (const PutPiece& piece : pieces_) take(piece.area());
  start = std::clamp(start, 0, along(side, cells_));
  end = std::clamp(end, start, along(side, cells_));
  return {way(side, start), cells_ - way(side, along(side, cells_) - (end - start))};
}

IVec2 LevelNow::room_behind() const {
  const LevelSide side = version_->endless->side;
  const IRect there = extent();
  const int cells =
      is_forward(side) ? along(side, there.at) : along(side, there.at + there.size) - along(side, cells_);
  return way(side, cells / block_side * block_side);
}

void LevelNow::move_origin(IVec2 cells) {
  const IVec2 blocks = -cells / block_side;
  ++changes_;
  origin_ += cells;
  solid_->move_blocks(blocks);
  for (std::size_t i = 0; i < version_->layers.size(); ++i) {
    if (!tiles_[i]) continue;
    tiles_[i]->move_blocks(blocks);
    painted_[i]->move_blocks(blocks);
  }
  for (PutPiece& piece : pieces_) piece.cell -= cells;
  for (ChangedCell& change : changed_)
    if (version_->layers[version_->layer(change.layer)].parallax == Vec2{1, 1}) change.cell -= cells;
  std::erase_if(changed_, [this](const ChangedCell& change) {
    return !IRect{{0, 0}, cells_}.contains(change.cell);
  });
  move_marks();
  refresh_ends({{0, 0}, cells_});
}

}  // namespace vole
