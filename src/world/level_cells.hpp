// What is in the cells of a level now: what its file, its pieces and code have put there. Found from the state of LevelNow, and no
// state itself.
#pragma once

#include <memory>
#include <optional>
#include <vector>

#include "vole/asset/asset.hpp"
#include "vole/level/level.hpp"
#include "vole/world/tile_components.hpp"

namespace vole {

struct Binding;

class LevelCells {
 public:
  // The newest version of a level's file. Throws Error.
  LevelCells(const Asset<Level>& asset, const Binding& binding);

  const Level& file() const { return *version_; }
  const std::shared_ptr<const Level>& version() const { return version_; }
  bool outdated() const { return asset_.shared() != version_ && asset_.shared() != refused_; }
  void refuse_newer() { refused_ = asset_.shared(); }

  // Cells that there is room for.
  IVec2 room() const { return room_; }
  // Of an endless level: makes the room, in which the level's own part lies so many blocks of cells to the right and below. What does
  // not go along with the level has no part in this, or in moving.
  void make_room(IVec2 blocks);
  void move_blocks(IVec2 by);

  const TileGrid& tiles(std::size_t layer) const;
  const MaterialGrid& painted(std::size_t layer) const;
  const SolidGrid& solid() const { return solid_ ? *solid_ : version_->solid; }
  TileCell tile(std::size_t layer, IVec2 cell) const { return TileCell::from(tiles(layer).find(cell)); }
  Paint paint(std::size_t layer, IVec2 cell) const {
    return {tile(layer, cell), painted(layer).find(cell) - 1};
  }
  std::uint64_t changes() const { return changes_; }
  // What the cells are said to be is other, though they may look the same.
  void say_changed();

  // Of what is solid in a cell, and of the floor seen from above; 1 where nothing says one.
  float friction(IVec2 cell) const;
  float friction_of_floor(IVec2 cell) const;
  // What a tile has of a component of the game's own, by the number of its type; and the foremost tile in a cell that has one.
  const void* value(std::size_t type, const TileCell& cell) const { return values_.find(cell.tile, type); }
  const void* foremost_value(std::size_t type, IVec2 cell) const;

  // The cell, and what its neighbours come to. `origin`: where the origin lies, in cells, so that variants stay where they are.
  void put(std::size_t layer, IVec2 cell, const Paint& paint, IVec2 origin);
  // Of a painted cell: the tile that its neighbours make it.
  void choose_edge(std::size_t layer, IVec2 cell, IVec2 origin);
  // Whether code or a piece has painted something in a layer.
  bool has_own_paint(std::size_t layer) const { return painted_[layer].has_value(); }

 private:
  bool goes_along(std::size_t layer) const;
  void show(std::size_t layer, IVec2 cell, std::uint16_t tile);

  Asset<Level> asset_;
  std::shared_ptr<const Level> version_, refused_;
  TileComponents values_;
  bool floors_differ_ = false;  // in friction, seen from above
  IVec2 room_{0, 0};
  std::uint64_t changes_ = 0;
  // Of each layer, once something in it is changed; they share with the file what is not.
  std::vector<std::optional<TileGrid>> tiles_;
  std::vector<std::optional<MaterialGrid>> painted_;
  std::optional<SolidGrid> solid_;
};

}  // namespace vole
