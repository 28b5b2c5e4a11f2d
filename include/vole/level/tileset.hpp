// Tiles cut from a picture and found by name. Read from NAME.tileset.toml:
//
//   picture = "earth.png"                    # in the same folder; NAME.png when left out
//   frame = { size = [16, 16], margin = 0, spacing = 0 }     # of a tile; its sides may differ
//
//   [tiles.earth]
//   cell = [0, 0]                            # column and row in the picture
//   solid = true                             # false when left out
//
//   [tiles.bank]
//   cell = [1, 0]
//   shape = "rise"                           # solid, but not all of it: see TileShape; or corners of its own:
//   corners = [[0, 16], [16, 6], [16, 16]]   # 3 to 16, convex, in pixels from the tile's corner
//   one_way = "up"                           # holds what comes from above, and lets through all else
//   category = "water"                       # of game.toml's [categories]; "ground" when left out
//   shadow = false                           # lamps (world/lamp.hpp) shine through it, as through what is one-way
//   friction = 0.3                           # 1 when left out: who walks on it from the side speeds up and stops so much slower
//   tags = ["wet"]
//   pond = { depth = 3 }                     # a component of the game's own: see LevelNow::find
//
//   [tiles.stone]                            # several: "stone 0", "stone 1" and so on
//   cells = [[2, 0], [3, 1]]                 # a part of the picture, row by row; or row = 2
//
//   [tiles.water]                            # one that moves
//   frames = [[0, 3], [1, 3], [2, 3]]
//   fps = 6                                  # or seconds = [0.2, 0.1, 0.2]
//
// Materials of tiles choose one by its neighbours: see edges.hpp. A level may put any tile mirrored and turned: see TileTable.
//
// Until there is a picture, size = 16 (or [16, 8]) and tiles of one colour: earth = { colour = "#4a3026", solid = true }.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "vole/asset/sheet.hpp"
#include "vole/base/toml_value.hpp"
#include "vole/level/edges.hpp"
#include "vole/physics/collision_world.hpp"

namespace vole {

struct Tile {
  std::string name;
  std::optional<CellForm>
      form;  // what of it is solid; its category is a place among the tileset's categories
  float friction = 1;
  std::vector<std::string> tags;
  Named<TomlValue> values;    // components as written
  std::vector<Frame> frames;  // at least one
  Clip clip;                  // of those frames, where there are several

  bool solid() const { return form.has_value(); }
  bool moves() const { return frames.size() > 1; }
};

// The place of a category among those that are known, which it joins when it is new. Throws Error at `asked` for the 33rd.
std::uint8_t category_among(std::vector<Located<std::string>>& known, const Located<std::string>& its,
                            const FilePosition& asked);

class Tileset {
 public:
  // Made and ended in one place, not anew in each source that uses it.
  Tileset();
  Tileset(const Tileset&);
  Tileset(Tileset&&) noexcept;
  Tileset& operator=(const Tileset&) = delete;
  Tileset& operator=(Tileset&&) noexcept;
  ~Tileset();

  std::string name;
  std::shared_ptr<const Picture> picture;
  IVec2 tile_size{16, 16};
  std::vector<Tile> tiles;  // in the order of the file; then those that materials have of their own
  std::vector<TileMaterial> materials;
  std::vector<Located<std::string>> categories{{"ground", {}}};  // that tiles are of

  // The index of the tile of this name, or -1.
  int find(std::string_view tile_name) const;
};

template <>
struct AssetType<Tileset> {
  static constexpr std::string_view word = "tileset";
  static constexpr std::string_view folder = "assets";
  static constexpr std::string_view ending = ".tileset.toml";
  static Tileset load(Loading& loading);
  static TomlValue schema();  // of its file: see schema.hpp
};

}  // namespace vole
