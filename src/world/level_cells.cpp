#include "level_cells.hpp"

#include <algorithm>
#include <atomic>

#include "level_room.hpp"
#include "vole/world/binding.hpp"

namespace vole {
namespace {

// One for each change in any level, so that what is kept for one state of the cells is never taken for another's.
std::uint64_t next_change() {
  static std::atomic<std::uint64_t> last = 0;
  return ++last;
}

TileComponents values_of(const Level& level, const Binding& binding) {
  Report report;
  TileComponents values(level.tiles, binding.types, binding.unknown, report);
  report.throw_if_errors();
  return values;
}

bool slows(const Tile& tile) {
  return !tile.solid() && tile.friction != 1;
}

}  // namespace

LevelCells::LevelCells(const Asset<Level>& asset, const Binding& binding)
    : asset_(asset),
      version_(asset.shared()),
      values_(values_of(*version_, binding)),
      floors_differ_(std::any_of(version_->tiles.tiles().begin(), version_->tiles.tiles().end(), slows)),
      room_(room_of(*version_)),
      changes_(next_change()),
      tiles_(version_->layers.size()),
      painted_(version_->layers.size()) {}

bool LevelCells::goes_along(std::size_t layer) const {
  return version_->layers[layer].parallax == Vec2{1, 1};
}

void LevelCells::make_room(IVec2 blocks) {
  solid_ = version_->solid;
  solid_->grow(room_);
  solid_->move_blocks(blocks);
  for (std::size_t i = 0; i < version_->layers.size(); ++i) {
    if (!goes_along(i)) continue;
    tiles_[i] = version_->layers[i].tiles;
    painted_[i] = version_->layers[i].painted;
    tiles_[i]->grow(room_);
    painted_[i]->grow(room_);
    tiles_[i]->move_blocks(blocks);
    painted_[i]->move_blocks(blocks);
  }
}

void LevelCells::say_changed() {
  changes_ = next_change();
}

void LevelCells::move_blocks(IVec2 by) {
  say_changed();
  solid_->move_blocks(by);
  for (std::size_t i = 0; i < version_->layers.size(); ++i) {
    if (!goes_along(i)) continue;
    tiles_[i]->move_blocks(by);
    painted_[i]->move_blocks(by);
  }
}

const TileGrid& LevelCells::tiles(std::size_t layer) const {
  return tiles_[layer] ? *tiles_[layer] : version_->layers[layer].tiles;
}

const MaterialGrid& LevelCells::painted(std::size_t layer) const {
  return painted_[layer] ? *painted_[layer] : version_->layers[layer].painted;
}

float LevelCells::friction(IVec2 cell) const {
  for (std::size_t i = version_->layers.size(); i > 0; --i) {
    const TileCell its = tile(i - 1, cell);
    if (its.tile < 0 || !version_->layers[i - 1].blocks()) continue;
    if (const Tile& found = version_->tiles.tile(its.tile); found.solid()) return found.friction;
  }
  return 1;
}

float LevelCells::friction_of_floor(IVec2 cell) const {
  if (!floors_differ_) return 1;
  for (std::size_t i = version_->layers.size(); i > 0; --i) {
    const TileCell its = tile(i - 1, cell);
    if (its.tile < 0 || !goes_along(i - 1)) continue;
    if (const Tile& found = version_->tiles.tile(its.tile); slows(found)) return found.friction;
  }
  return 1;
}

const void* LevelCells::foremost_value(std::size_t type, IVec2 cell) const {
  if (!values_.any(type)) return nullptr;
  for (std::size_t i = version_->layers.size(); i > 0; --i) {
    if (!goes_along(i - 1)) continue;
    const TileCell its = tile(i - 1, cell);
    if (its.tile < 0) continue;
    if (const void* const found = values_.find(its.tile, type)) return found;
  }
  return nullptr;
}

void LevelCells::put(std::size_t layer, IVec2 cell, const Paint& paint, IVec2 origin) {
  if (painted(layer).find(cell) - 1 != paint.material) {
    if (!painted_[layer]) painted_[layer] = version_->layers[layer].painted;
    painted_[layer]->set(cell, static_cast<std::uint8_t>(paint.material + 1));
  }
  if (paint.material < 0) show(layer, cell, paint.cell.number());
  for (int y = cell.y - 1; y <= cell.y + 1; ++y)
    for (int x = cell.x - 1; x <= cell.x + 1; ++x) choose_edge(layer, {x, y}, origin);
}

void LevelCells::choose_edge(std::size_t layer, IVec2 cell, IVec2 origin) {
  if (painted(layer).find(cell) == 0) return;
  show(layer, cell, edge_tile(version_->tiles.materials(), painted(layer), tiles(layer), cell, origin));
}

void LevelCells::show(std::size_t layer, IVec2 cell, std::uint16_t number) {
  if (tiles(layer).find(cell) == number) return;
  changes_ = next_change();
  if (!tiles_[layer]) tiles_[layer] = version_->layers[layer].tiles;
  tiles_[layer]->set(cell, number);
  if (!version_->layers[layer].blocks()) return;
  if (!solid_) solid_ = version_->solid;
  solid_->set(cell, false);
  for (std::size_t i = 0; i < version_->layers.size(); ++i)
    if (const TileCell its = tile(i, cell); version_->layers[i].blocks() && its.tile >= 0)
      put_solid(*solid_, cell, version_->tiles, its);
}

}  // namespace vole
