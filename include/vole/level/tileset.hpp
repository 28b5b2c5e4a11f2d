// Tiles cut from a picture and found by name. Read from NAME.tileset.toml:
//
//   picture = "earth.png"                    # in the same folder; NAME.png when left out
//   frame = { size = [16, 16], margin = 0, spacing = 0 }
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
//
// A level may put any of them mirrored and turned: see Tileset::cell.
//
// Until there is a picture, size = 16 and tiles of one colour: earth = { colour = "#4a3026", solid = true }.
#pragma once

#include <optional>
#include <string>
#include <vector>

#include "vole/asset/sheet.hpp"
#include "vole/asset/tile_cell.hpp"
#include "vole/physics/collision_world.hpp"

namespace vole {

struct Tile {
  std::string name;
  std::optional<CellForm>
      form;  // what of it is solid; its category is a place among the tileset's categories

  bool solid() const { return form.has_value(); }
};

class Tileset {
 public:
  std::string name;
  std::shared_ptr<const Picture> picture;
  int tile_size = 16;
  std::vector<Tile> tiles;                                       // in the order of the file
  std::vector<Frame> frames;                                     // of each tile
  std::vector<Located<std::string>> categories{{"ground", {}}};  // that tiles are of

  // The index of the tile of this name, or -1.
  int find(std::string_view tile_name) const;
  // What is written for a cell: a tile's name, and after it how it lies: "rise", "rise, mirrored", "rise, turned 90",
  // "rise, mirrored, turned 270"; "" is nothing. Throws Error at `asked` with what was probably meant.
  TileCell cell(std::string_view written, const FilePosition& asked = {}) const;
  // The tile's form as it lies; nothing where it is not solid.
  std::optional<CellForm> form(const TileCell& cell) const;
  // The place of a category, which is added when it is new. Throws Error for the 33rd.
  std::uint8_t category(const Located<std::string>& its);
};

template <>
struct AssetType<Tileset> {
  static constexpr std::string_view word = "tileset";
  static constexpr std::string_view folder = "assets";
  static constexpr std::string_view ending = ".tileset.toml";
  static Tileset load(Loading& loading);
  static Node schema();  // of its file: see schema.hpp
};

}  // namespace vole
