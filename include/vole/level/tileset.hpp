// Tiles cut from a picture and found by name. Read from NAME.tileset.toml:
//
//   picture = "earth.png"                    # in the same folder; NAME.png when left out
//   frame = { size = [16, 16], margin = 0, spacing = 0 }
//
//   [tiles.earth]
//   cell = [0, 0]                            # column and row in the picture
//   solid = true                             # false when left out
//
// Until there is a picture, size = 16 and tiles of one colour: earth = { colour = "#4a3026", solid = true }.
#pragma once

#include <string>
#include <vector>

#include "vole/asset/sheet.hpp"

namespace vole {

struct Tile {
  std::string name;
  bool solid = false;
};

class Tileset {
 public:
  std::string name;
  std::shared_ptr<const Picture> picture;
  int tile_size = 16;
  std::vector<Tile> tiles;    // in the order of the file
  std::vector<Frame> frames;  // of each tile

  // The index of the tile of this name, or -1.
  int find(std::string_view tile_name) const;
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
