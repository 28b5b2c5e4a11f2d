#include "vole/level/piece_cells.hpp"

#include <fmt/core.h>

#include "vole/base/names.hpp"

namespace vole {
namespace {

// The numbers of a piece's tilesets' things in the level's table. `add` takes what their names come to.
template <class Things, class Add>
void find_all(const Tileset& set, const Things& things, const TileTable& into, const Add& add) {
  for (const auto& thing : things) add(into.paint(fmt::format("{}:{}", set.name, thing.name)));
}

}  // namespace

PieceCells::PieceCells(std::shared_ptr<const Level> piece, const Level& into, const FilePosition& asked)
    : piece_(std::move(piece)) {
  Report report;
  const std::vector<std::shared_ptr<const Tileset>>& there = into.tiles.sets();
  for (const std::shared_ptr<const Tileset>& set : piece_->tiles.sets()) {
    bool known = false;
    for (const auto& each : there) known = known || each->name == set->name;
    if (!known) {
      report.error(
          asked,
          fmt::format("the piece \"{}\" is made of \"{}\", a tileset that the level \"{}\" does not name",
                      piece_->name, set->name, into.name));
      continue;
    }
    find_all(*set, set->tiles, into.tiles, [this](const Paint& paint) { tiles_.push_back(paint.cell.tile); });
    find_all(*set, set->materials, into.tiles,
             [this](const Paint& paint) { materials_.push_back(paint.material); });
  }
  layers_.assign(into.layers.size(), -1);
  for (std::size_t i = 0; i < piece_->layers.size(); ++i) {
    const LevelLayer& layer = piece_->layers[i];
    if (layer.tiles.empty()) continue;
    const std::size_t index = index_named(into.layers, layer.name);
    if (index == into.layers.size())
      report.error(
          asked,
          fmt::format("the piece \"{}\" has tiles in its layer \"{}\", which the level \"{}\" does not have",
                      piece_->name, layer.name, into.name),
          did_you_mean(layer.name, names_of(into.layers)));
    else if (into.layers[index].parallax != Vec2{1, 1})
      report.error(
          asked, fmt::format(
                     "the piece \"{}\" has tiles in the layer \"{}\", which does not go along with the level",
                     piece_->name, layer.name));
    else
      layers_[index] = static_cast<int>(i);
  }
  report.throw_if_errors();
}

Paint PieceCells::paint(std::size_t layer, IVec2 cell) const {
  const int index = layers_[layer];
  if (index < 0) return {};
  const LevelLayer& its = piece_->layers[static_cast<std::size_t>(index)];
  if (const std::uint8_t material = its.painted.find(cell)) return {{}, materials_[material - 1u]};
  TileCell tile = TileCell::from(its.tiles.find(cell));
  if (tile.tile >= 0) tile.tile = tiles_[static_cast<std::size_t>(tile.tile)];
  return {tile, -1};
}

}  // namespace vole
