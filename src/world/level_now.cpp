#include "vole/world/level_now.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <cmath>
#include <tuple>
#include <utility>

#include "level_room.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/base/names.hpp"
#include "vole/world/binding.hpp"

namespace vole {
namespace {

bool can_be_put(const Level& level, IVec2 cells, const ChangedCell& changed) {
  if (!find_named(level.layers, changed.layer) || !IRect{{0, 0}, cells}.contains(changed.cell)) return false;
  try {
    level.tiles.paint(changed.tile);
    return true;
  } catch (const Error&) {
    return false;
  }
}

}  // namespace

LevelNow::LevelNow() = default;
LevelNow::LevelNow(const LevelNow&) = default;
LevelNow& LevelNow::operator=(const LevelNow&) = default;
LevelNow::LevelNow(LevelNow&&) noexcept = default;
LevelNow& LevelNow::operator=(LevelNow&&) noexcept = default;
LevelNow::~LevelNow() = default;

void LevelNow::load(std::string_view name, const Binding& binding) {
  const Asset<Level> asset = binding.catalog.get<Level>(name);
  *this = {};
  name_ = name;
  asset_ = asset;
  if (asset->endless) {
    seed_ = asset->endless->seed.value_or(0);
    origin_ = first_origin(*asset);
  }
  bind(binding);
}

bool LevelNow::wants_seed() const {
  return !version_->pieces.empty() && !(version_->endless && version_->endless->seed);
}

bool LevelNow::outdated() const {
  if (!version_) return false;
  if (asset_.shared() != version_ && asset_.shared() != refused_) return true;
  return std::any_of(files_.begin(), files_.end(), [](const auto& file) {
    const std::shared_ptr<const Level> newest = file.second.asset.shared();
    return newest != file.second.cells->version() && newest != file.second.refused;
  });
}

void LevelNow::refuse_newer() {
  refused_ = asset_.shared();
  for (auto& [name, file] : files_) file.refused = file.asset.shared();
}

void LevelNow::bind(const Binding& binding) {
  ++changes_;
  tiles_.clear();
  painted_.clear();
  solid_.reset();
  version_ = nullptr;
  if (name_.empty()) return;
  asset_ = binding.catalog.get<Level>(name_);
  const std::shared_ptr<const Level> newest = asset_.shared();
  Report report;
  TileValues values(newest->tiles, binding.types, binding.unknown, report);
  report.throw_if_errors();
  version_ = newest;
  values_ = std::move(values);
  const auto slows = [](const Tile& tile) { return !tile.solid() && tile.friction != 1; };
  floors_differ_ = std::any_of(version_->tiles.tiles().begin(), version_->tiles.tiles().end(), slows);
  tiles_.resize(version_->layers.size());
  painted_.resize(version_->layers.size());
  const std::vector<ChangedCell> changed = std::exchange(changed_, {});
  make_room();
  bind_pieces(binding);
  for (const ChangedCell& each : changed)
    if (can_be_put(*version_, cells_, each)) put(each.layer, each.cell, each.tile);
  std::erase_if(looks_,
                [this](const ChangedLook& look) { return !find_named(version_->layers, look.layer); });
}

IVec2 LevelNow::cell_at(Vec2 point) const {
  const Vec2 cell = point / Vec2(tile_size());
  return {static_cast<int>(std::floor(cell.x)), static_cast<int>(std::floor(cell.y))};
}

void LevelNow::put(std::string_view layer_name, IVec2 cell, std::string_view tile) {
  const std::size_t index = layer(layer_name);
  const Paint wanted_paint = version_->tiles.paint(tile);
  if (!IRect{{0, 0}, cells()}.contains(cell))
    throw Error(FilePosition{}, fmt::format("the level \"{}\" has no cell {}, {}: it is {} x {}", name_,
                                            cell.x, cell.y, cells().x, cells().y));
  const auto at = find_change(index, cell);
  const bool was_changed = is_change(at, index, cell);
  const bool is_as_written = same(written(index, cell), wanted_paint);
  if (was_changed && is_as_written)
    changed_.erase(at);
  else if (was_changed)
    at->tile = tile;
  else if (!is_as_written)
    changed_.insert(at, {std::string(layer_name), cell, std::string(tile)});
  paint(index, cell, wanted_paint);
}

// Where the change of a cell stands, or would.
LevelNow::ChangeAt LevelNow::find_change(std::size_t index, IVec2 cell) {
  const std::tuple wanted(index, cell.y, cell.x);
  return std::lower_bound(changed_.begin(), changed_.end(), wanted,
                          [this](const ChangedCell& each, const auto& other) {
                            return std::tuple(version_->layer(each.layer), each.cell.y, each.cell.x) < other;
                          });
}

bool LevelNow::is_change(ChangeAt at, std::size_t index, IVec2 cell) const {
  return at != changed_.end() && at->cell == cell && at->layer == version_->layers[index].name;
}

// The cell, and what its neighbours come to.
void LevelNow::paint(std::size_t index, IVec2 cell, const Paint& paint) {
  const int group = painted(index).find(cell) - 1;
  if (group != paint.group) {
    if (!painted_[index]) painted_[index] = version_->layers[index].painted;
    painted_[index]->set(cell, static_cast<std::uint8_t>(paint.group + 1));
  }
  if (paint.group < 0) show(index, cell, paint.cell.number());
  for (int y = cell.y - 1; y <= cell.y + 1; ++y)
    for (int x = cell.x - 1; x <= cell.x + 1; ++x) choose_edge(index, {x, y});
}

void LevelNow::choose_edge(std::size_t index, IVec2 cell) {
  if (painted(index).find(cell) == 0) return;
  show(index, cell, edge_tile(version_->tiles.groups(), painted(index), tiles(index), cell, origin_));
}

void LevelNow::show(std::size_t index, IVec2 cell, std::uint16_t tile) {
  if (tiles(index).find(cell) == tile) return;
  ++changes_;
  if (!tiles_[index]) tiles_[index] = version_->layers[index].tiles;
  tiles_[index]->set(cell, tile);
  if (!version_->layers[index].blocks()) return;
  if (!solid_) solid_ = version_->solid;
  solid_->set(cell, false);
  for (std::size_t i = 0; i < version_->layers.size(); ++i) {
    const TileCell its = TileCell::from(tiles(i).find(cell));
    if (version_->layers[i].blocks() && its.tile >= 0) put_solid(*solid_, cell, version_->tiles, its);
  }
}

std::string_view LevelNow::tile(std::string_view layer_name, IVec2 at) const {
  return version_->tiles.name({cell(layer_name, at)});
}

std::string_view LevelNow::group(std::string_view layer_name, IVec2 at) const {
  return version_->tiles.name({{}, painted(layer(layer_name)).find(at) - 1});
}

TileCell LevelNow::cell(std::string_view layer_name, IVec2 at) const {
  return TileCell::from(tiles(layer(layer_name)).find(at));
}

bool LevelNow::has_tag(std::string_view layer_name, IVec2 at, std::string_view tag) const {
  const TileCell its = cell(layer_name, at);
  if (its.tile < 0) return false;
  const std::vector<std::string>& tags = version_->tiles.tile(its.tile).tags;
  return std::find(tags.begin(), tags.end(), tag) != tags.end();
}

float LevelNow::friction(IVec2 cell) const {
  for (std::size_t i = version_->layers.size(); i > 0; --i) {
    const TileCell its = TileCell::from(tiles(i - 1).find(cell));
    if (its.tile < 0 || !version_->layers[i - 1].blocks()) continue;
    if (const Tile& tile = version_->tiles.tile(its.tile); tile.solid()) return tile.friction;
  }
  return 1;
}

float LevelNow::friction_of_floor(IVec2 cell) const {
  if (!floors_differ_) return 1;
  for (std::size_t i = version_->layers.size(); i > 0; --i) {
    const TileCell its = TileCell::from(tiles(i - 1).find(cell));
    if (its.tile < 0 || version_->layers[i - 1].parallax != Vec2{1, 1}) continue;
    if (const Tile& tile = version_->tiles.tile(its.tile); !tile.solid() && tile.friction != 1)
      return tile.friction;
  }
  return 1;
}

const void* LevelNow::find_anywhere(std::size_t type, IVec2 cell) const {
  if (!values_.any(type)) return nullptr;
  for (std::size_t i = version_->layers.size(); i > 0; --i) {
    if (version_->layers[i - 1].parallax != Vec2{1, 1}) continue;
    const TileCell its = TileCell::from(tiles(i - 1).find(cell));
    if (its.tile < 0) continue;
    if (const void* const found = values_.find(its.tile, type)) return found;
  }
  return nullptr;
}

LayerLook& LevelNow::look(std::string_view layer_name) {
  const LayerLook written = version_->layers[layer(layer_name)].look;
  const auto found = std::find_if(looks_.begin(), looks_.end(),
                                  [layer_name](const ChangedLook& each) { return each.layer == layer_name; });
  if (found != looks_.end()) return found->look;
  return looks_.emplace_back(ChangedLook{std::string(layer_name), written}).look;
}

const LayerLook& LevelNow::look(std::size_t index) const {
  const LevelLayer& its = version_->layers[index];
  for (const ChangedLook& each : looks_)
    if (each.layer == its.name) return each.look;
  return its.look;
}

const TileGrid& LevelNow::tiles(std::size_t index) const {
  return tiles_[index] ? *tiles_[index] : version_->layers[index].tiles;
}

const GroupGrid& LevelNow::painted(std::size_t index) const {
  return painted_[index] ? *painted_[index] : version_->layers[index].painted;
}

}  // namespace vole
