// The level as it is now: what its file says, and what was changed since.
//
//   level.put("ground", {3, 7}, "turf");                       // drawn and solid from now on
//   level.put("ground", {4, 7}, "bank, mirrored, turned 90");
//   level.put("ground", {5, 7}, "soil");                       // a group: it and its neighbours get their edges
//   level.put("ground", {3, 7}, "");                           // nothing there
//   level.look("fog").opacity = 0.5f;
//   if (const Water* water = level.find<Water>("ground", {3, 7})) ...
#pragma once

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/asset/catalog.hpp"
#include "vole/level/level.hpp"
#include "vole/world/tile_values.hpp"

namespace vole {

struct Binding;

// A cell that is not as the level's file has it.
struct ChangedCell {
  std::string layer;
  IVec2 cell{0, 0};
  std::string tile;  // as TileTable::paint reads it; empty: nothing
};
template <class V>
void describe(V& v, ChangedCell& changed) {
  v.state("layer", changed.layer);
  v.state("cell", changed.cell);
  v.state("tile", changed.tile);
}

// A layer whose look code has asked to change.
struct ChangedLook {
  std::string layer;
  LayerLook look;
};
template <class V>
void describe(V& v, ChangedLook& changed) {
  v.state("layer", changed.layer);
  v.state("look", changed.look);
}

class LevelNow {
 public:
  // Whether a level is loaded; all but load() and bind() need one.
  explicit operator bool() const { return version_ != nullptr; }

  // Throw Error.
  void load(std::string_view name, const Binding& binding);
  // Takes the newest version of the level's file, with the changes put over it: those that it no longer has a
  // place for are forgotten. For a changed file and a restored state.
  void bind(const Binding& binding);
  // Whether the file has a newer version, other than one that was refused.
  bool outdated() const { return version_ && asset_.shared() != version_ && asset_.shared() != refused_; }
  // Stays with the version that it has, until the file changes once more.
  void refuse_newer() { refused_ = asset_.shared(); }

  const std::string& name() const { return name_; }
  // As the file has it.
  const Level& file() const { return *version_; }
  const std::shared_ptr<const Level>& version() const { return version_; }
  IVec2 cells() const { return version_->cells; }
  IVec2 tile_size() const { return version_->tile_size(); }
  // In pixels.
  IVec2 size() const { return version_->size(); }
  // The cell that a point lies in.
  IVec2 cell_at(Vec2 point) const;
  // Throws Error with the nearest name.
  std::size_t layer(std::string_view name) const { return version_->layer(name); }

  // Puts a tile or a group into a cell of a layer, as TileTable::paint reads it. Throws Error for a name that is not there,
  // and for a cell outside the level.
  void put(std::string_view layer, IVec2 cell, std::string_view tile);
  // The name of the tile in a cell, and of the group that it is painted with; empty for none, and outside.
  std::string_view tile(std::string_view layer, IVec2 cell) const;
  std::string_view group(std::string_view layer, IVec2 cell) const;
  // Which tile it is, and how it lies.
  TileCell cell(std::string_view layer, IVec2 at) const;
  // Whether it has a tag; and what it has of a component of the game's own: nullptr for nothing.
  bool has_tag(std::string_view layer, IVec2 cell, std::string_view tag) const;
  template <Described T>
  const T* find(std::string_view layer, IVec2 cell) const {
    return values_.find<T>(this->cell(layer, cell).tile);
  }
  // Of what is solid in a cell, as its tile says; 1 where nothing is.
  float friction(IVec2 cell) const;
  const std::vector<ChangedCell>& changed() const { return changed_; }

  // How a layer is shown; to change it, and as it is. Throw Error with the nearest name.
  LayerLook& look(std::string_view layer);
  const LayerLook& look(std::string_view layer) const { return look(this->layer(layer)); }
  const LayerLook& look(std::size_t layer) const;

  const TileGrid& tiles(std::size_t layer) const;
  const GroupGrid& painted(std::size_t layer) const;
  const SolidGrid& solid() const { return solid_ ? *solid_ : version_->solid; }

  template <class V>
  friend void describe(V& v, LevelNow& level) {
    v.state("name", level.name_);
    v.state("changed", level.changed_);
    v.state("looks", level.looks_);
  }

 private:
  void paint(std::size_t layer, IVec2 cell, const Paint& paint);
  void choose_edge(std::size_t layer, IVec2 cell);
  void show(std::size_t layer, IVec2 cell, std::uint16_t tile);
  bool as_written(std::size_t layer, IVec2 cell, const Paint& paint) const;

  std::string name_;
  std::vector<ChangedCell> changed_;  // one for a cell, in the order of layers, rows and columns
  std::vector<ChangedLook> looks_;

  Asset<Level> asset_;
  std::shared_ptr<const Level> version_, refused_;
  TileValues values_;
  // Of each layer, once something in it is changed; they share with the file what is not.
  std::vector<std::optional<TileGrid>> tiles_;
  std::vector<std::optional<GroupGrid>> painted_;
  std::optional<SolidGrid> solid_;
};

}  // namespace vole
