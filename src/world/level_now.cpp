#include "vole/world/level_now.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <tuple>
#include <utility>

#include "vole/base/names.hpp"

namespace vole {
namespace {

// What is written for a cell, in a layer's cells; nothing when the tileset has no such tile.
std::optional<std::uint16_t> number_of(const Level& level, std::string_view written) {
  if (written.empty()) return std::uint16_t{0};
  try {
    if (level.tileset) return level.tileset->cell(written).number();
  } catch (const Error&) {
  }
  return std::nullopt;
}

bool is_inside(const Level& level, IVec2 cell) {
  return cell.x >= 0 && cell.y >= 0 && cell.x < level.cells.x && cell.y < level.cells.y;
}

std::size_t position(const Level& level, IVec2 cell) {
  return static_cast<std::size_t>(cell.y) * static_cast<std::size_t>(level.cells.x) +
         static_cast<std::size_t>(cell.x);
}

}  // namespace

void LevelNow::load(std::string_view name, Catalog& catalog) {
  const Asset<Level> asset = catalog.get<Level>(name);
  name_ = name;
  changed_.clear();
  asset_ = asset;
  bind(catalog);
}

void LevelNow::bind(Catalog& catalog) {
  tiles_.clear();
  solid_changed_ = false;
  version_ = nullptr;
  if (name_.empty()) return;
  asset_ = catalog.get<Level>(name_);
  version_ = asset_.shared();
  const std::vector<ChangedCell> changed = std::exchange(changed_, {});
  for (const ChangedCell& each : changed) {
    if (find_named(version_->layers, each.layer) && is_inside(*version_, each.cell) &&
        number_of(*version_, each.tile))
      put(each.layer, each.cell, each.tile);
  }
}

void LevelNow::put(std::string_view layer_name, IVec2 cell, std::string_view tile) {
  const std::size_t index = layer(layer_name);
  if (!tile.empty() && !version_->tileset)
    throw Error(FilePosition{}, fmt::format("no tile \"{}\" in level \"{}\"", tile, name_),
                "it has no tileset");
  const std::uint16_t number = tile.empty() ? std::uint16_t{0} : version_->tileset->cell(tile).number();
  if (!is_inside(*version_, cell))
    throw Error(FilePosition{}, fmt::format("the level \"{}\" has no cell {}, {}: it is {} x {}", name_,
                                            cell.x, cell.y, version_->cells.x, version_->cells.y));
  const auto order = [this](const ChangedCell& each) {
    return std::tuple(version_->layer(each.layer), each.cell.y, each.cell.x);
  };
  ChangedCell wanted{std::string(layer_name), cell, std::string(tile)};
  const auto at = std::lower_bound(changed_.begin(), changed_.end(), wanted,
                                   [&](const auto& a, const auto& b) { return order(a) < order(b); });
  const bool was_changed = at != changed_.end() && order(*at) == order(wanted);
  const std::vector<std::uint16_t>& written = version_->layers[index].tiles;
  const bool as_written = (written.empty() ? 0 : written[position(*version_, cell)]) == number;
  if (was_changed && as_written)
    changed_.erase(at);
  else if (was_changed)
    at->tile = std::move(wanted.tile);
  else if (!as_written)
    changed_.insert(at, std::move(wanted));
  show(index, cell, number);
}

std::string_view LevelNow::tile(std::string_view layer_name, IVec2 cell) const {
  const std::vector<std::uint16_t>& cells = tiles(layer(layer_name));
  if (cells.empty() || !is_inside(*version_, cell)) return {};
  const int tile = TileCell::from(cells[position(*version_, cell)]).tile;
  return tile < 0 ? std::string_view()
                  : std::string_view(version_->tileset->tiles[static_cast<std::size_t>(tile)].name);
}

TileCell LevelNow::cell(std::string_view layer_name, IVec2 at) const {
  const std::vector<std::uint16_t>& cells = tiles(layer(layer_name));
  return cells.empty() || !is_inside(*version_, at) ? TileCell{}
                                                    : TileCell::from(cells[position(*version_, at)]);
}

const std::vector<std::uint16_t>& LevelNow::tiles(std::size_t index) const {
  return index < tiles_.size() && !tiles_[index].empty() ? tiles_[index] : version_->layers[index].tiles;
}

void LevelNow::show(std::size_t index, IVec2 cell, std::uint16_t tile) {
  tiles_.resize(version_->layers.size());
  std::vector<std::uint16_t>& cells = tiles_[index];
  if (cells.empty()) cells = version_->layers[index].tiles;
  if (cells.empty())
    cells.resize(static_cast<std::size_t>(version_->cells.x) * static_cast<std::size_t>(version_->cells.y));
  cells[position(*version_, cell)] = tile;
  if (!std::exchange(solid_changed_, true)) solid_ = version_->solid;
  if (const auto form = form_of(cell))
    solid_.set(cell, *form);
  else
    solid_.set(cell, false);
}

// A layer that goes along with the level is solid where its tile is. The same choice among layers as when a level is read.
std::optional<CellForm> LevelNow::form_of(IVec2 cell) const {
  std::optional<CellForm> found;
  for (std::size_t i = 0; i < version_->layers.size(); ++i) {
    const std::vector<std::uint16_t>& cells = tiles(i);
    if (version_->layers[i].parallax != Vec2{1, 1} || cells.empty()) continue;
    const TileCell tile = TileCell::from(cells[position(*version_, cell)]);
    if (tile.tile < 0 || (found && found->is_full())) continue;
    if (auto form = version_->tileset->form(tile)) found = std::move(form);
  }
  return found;
}

}  // namespace vole
