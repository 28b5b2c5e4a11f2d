// The level as it is now: what its file says, and the cells that were changed since.
//
//   level.put("ground", {3, 7}, "turf");         // drawn and solid from now on
//   level.put("ground", {4, 7}, "bank, mirrored, turned 90");
//   level.put("ground", {3, 7}, "");             // nothing there
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/asset/catalog.hpp"
#include "vole/level/level.hpp"

namespace vole {

// A cell that is not as the level's file has it.
struct ChangedCell {
  std::string layer;
  IVec2 cell{0, 0};
  std::string tile;  // empty: nothing
};
template <class V>
void describe(V& v, ChangedCell& changed) {
  v.state("layer", changed.layer);
  v.state("cell", changed.cell);
  v.state("tile", changed.tile);
}

class LevelNow {
 public:
  // Whether a level is loaded; all but load() and bind() need one.
  explicit operator bool() const { return version_ != nullptr; }

  // Throw Error.
  void load(std::string_view name, Catalog& catalog);
  // Takes the newest version of the level's file, with the changed cells put over it: those that it no longer
  // has are forgotten. For a changed file and a restored state.
  void bind(Catalog& catalog);
  // Whether the file has a newer version.
  bool outdated() const { return version_ && asset_.shared() != version_; }

  const std::string& name() const { return name_; }
  // As the file has it.
  const Level& file() const { return *version_; }
  const std::shared_ptr<const Level>& version() const { return version_; }
  IVec2 cells() const { return version_->cells; }
  int tile_size() const { return version_->tile_size(); }
  // In pixels.
  IVec2 size() const { return version_->size(); }
  // Throws Error with the nearest name.
  std::size_t layer(std::string_view name) const { return version_->layer(name); }

  // Puts a tile of the level's tileset into a cell of a layer, as Tileset::cell reads it. Throws Error for a name that is
  // not there, and for a cell outside the level.
  void put(std::string_view layer, IVec2 cell, std::string_view tile);
  // The name of the tile in a cell; empty for none, and outside.
  std::string_view tile(std::string_view layer, IVec2 cell) const;
  // The same, and how it lies.
  TileCell cell(std::string_view layer, IVec2 at) const;
  const std::vector<ChangedCell>& changed() const { return changed_; }

  // Row by row, as in LevelLayer.
  const std::vector<std::uint16_t>& tiles(std::size_t layer) const;
  const SolidGrid& solid() const { return solid_changed_ ? solid_ : version_->solid; }

  template <class V>
  friend void describe(V& v, LevelNow& level) {
    v.state("name", level.name_);
    v.state("changed", level.changed_);
  }

 private:
  void show(std::size_t layer, IVec2 cell, std::uint16_t tile);
  std::optional<CellForm> form_of(IVec2 cell) const;

  std::string name_;
  std::vector<ChangedCell> changed_;  // one for a cell, in the order of layers, rows and columns

  Asset<Level> asset_;
  std::shared_ptr<const Level> version_;
  std::vector<std::vector<std::uint16_t>> tiles_;  // of each layer; empty: as in the file
  SolidGrid solid_;
  bool solid_changed_ = false;
};

}  // namespace vole
