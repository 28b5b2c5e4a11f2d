// The tiles and materials of all tilesets of a level, under one numbering. What is written for a cell is read here:
//
//   "turf"                            a tile, by its name
//   "rise, mirrored, turned 90"       the way round it lies: mirrored first, then turned clockwise by 90, 180 or 270
//   "soil"                            a material: its neighbours choose the tile
//   "cellar:turf"                     of the tileset "cellar", where several have one of this name
#pragma once

#include <map>
#include <memory>

#include "vole/level/tileset.hpp"

namespace vole {

// What a cell is painted with.
struct Paint {
  TileCell cell;
  int material = -1;  // its index: then the cell's tile is chosen by its neighbours; -1: none

  bool nothing() const { return material < 0 && cell.tile < 0; }
};

class TileTable {
 public:
  // Throws Error at `asked` for one with tiles of another size than those before, and for too many tiles or materials.
  void add(std::shared_ptr<const Tileset> tileset, const FilePosition& asked = {});

  bool empty() const { return sets_.empty(); }
  const std::vector<std::shared_ptr<const Tileset>>& sets() const { return sets_; }
  IVec2 tile_size() const { return empty() ? IVec2{16, 16} : sets_[0]->tile_size; }
  const std::vector<Tile>& tiles() const { return tiles_; }
  const Tile& tile(int index) const { return tiles_.at(static_cast<std::size_t>(index)); }
  const std::vector<TileMaterial>& materials() const { return materials_; }
  const std::vector<Located<std::string>>& categories() const { return categories_; }

  // What is written for a cell; "" is nothing. Throws Error at `asked` with what was probably meant.
  Paint paint(std::string_view written, const FilePosition& asked = {}) const;
  // Its tile's or material's name.
  std::string_view name(const Paint& paint) const;
  // The tile's form as it lies; nothing where it is not solid.
  std::optional<CellForm> form(const TileCell& cell) const;

  // The frame of each tile at first, by its index; and some ticks later, for those that move.
  const std::vector<Frame>& frames() const { return frames_; }
  void put_moving(std::vector<Frame>& frames, std::int64_t ticks, int ticks_per_second) const;

 private:
  // Of a tile or material by its name; for the second of a name only with the tileset's before it.
  struct Known {
    int index = -1;
    bool is_material = false;
    std::string_view set;
    int times = 0;
  };
  void name(const std::string& its, int index, bool is_material, const Tileset& set);
  const Known* find(std::string_view name, const FilePosition& asked) const;

  std::vector<std::shared_ptr<const Tileset>> sets_;
  std::vector<Tile> tiles_;
  std::vector<TileMaterial> materials_;
  std::vector<Frame> frames_;
  std::vector<int> moving_;  // tiles
  std::vector<Located<std::string>> categories_{{"ground", {}}};
  std::map<std::string, Known, std::less<>> by_name_;  // also as "set:name"
};

}  // namespace vole
