// A level: layers of tiles and pictures in drawing order, the places of things, and what is solid. Read
// from levels/NAME.level.toml:
//
//   tileset = "earth"
//   letters = { "." = "", "#" = "earth", "/" = "bank", "\\" = "bank, mirrored" }   # of the rows; "" is nothing
//
//   [[layers]]
//   name = "hedges"
//   picture = "hedges"                       # repeated sideways, its bottom at the level's bottom
//   repeat = "across"                        # or "none", "down", "both"
//   edge = "bottom"                          # or "top": at the level's top
//   cover = false                            # true: scaled to cover the canvas, whatever the camera does
//   parallax = [0.3, 0.1]                    # how far it goes with the camera: 0 not at all, 1 with the level
//
//   [[layers]]
//   name = "ground"
//   rows = ["....", "####"]
//   order = "depth"                          # or "feet": lower feet are drawn over higher ones
//
//   [[places]]
//   kind = "bulb"
//   cell = [2, 0]                            # feet in the middle of the cell's bottom; or at = [40, 16], in pixels
//   bulb = { worth = 5 }                     # put over what the kind says
//
//   [[zones]]
//   name = "doorstep"                        # met like a thing: see cues.hpp
//   at = [1004, 228]                         # of its corner, in pixels
//   size = [12, 60]
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "vole/asset/repeat.hpp"
#include "vole/base/describe.hpp"
#include "vole/level/tileset.hpp"
#include "vole/physics/solid_grid.hpp"

namespace vole {

// What decides which thing is drawn over which within a layer.
enum class LayerOrder : std::uint8_t { depth, feet };
constexpr auto enum_names(LayerOrder) {
  return std::array<std::string_view, 2>{"depth", "feet"};
}

enum class LayerEdge : std::uint8_t { bottom, top };
constexpr auto enum_names(LayerEdge) {
  return std::array<std::string_view, 2>{"bottom", "top"};
}

struct LevelLayer {
  std::string name;
  Vec2 parallax{1, 1};
  std::vector<std::uint16_t> tiles;  // row by row: TileCell::number; empty: no tiles at all
  std::shared_ptr<const Sheet> picture;
  Frame frame;  // its first
  Repeat repeat = Repeat::across;
  LayerEdge edge = LayerEdge::bottom;
  bool cover = false;
  LayerOrder order = LayerOrder::depth;
};

// Of one thing.
inline constexpr std::size_t most_tags = 32;

struct LevelPlace {
  std::string kind;
  Vec2 at{0, 0};
  std::string name;  // may be empty
  Node overrides;    // a table of components to put over the kind's
  FilePosition where;
};

struct LevelZone {
  std::string name;
  Rect area;
  FilePosition where;
};

class Level {
 public:
  std::string name;
  Colour sky{0, 0, 0, 255};
  std::shared_ptr<const Tileset> tileset;
  IVec2 cells{0, 0};
  std::vector<LevelLayer> layers;
  std::vector<LevelPlace> places;
  std::vector<LevelZone> zones;
  SolidGrid solid;

  int tile_size() const { return tileset ? tileset->tile_size : 16; }
  // In pixels.
  IVec2 size() const { return {cells.x * tile_size(), cells.y * tile_size()}; }
  // The index of the layer of this name; throws Error at `asked` with the nearest name.
  std::size_t layer(std::string_view layer_name, const FilePosition& asked = {}) const;
};

template <>
struct AssetType<Level> {
  static constexpr std::string_view word = "level";
  static constexpr std::string_view folder = "levels";
  static constexpr std::string_view ending = ".level.toml";
  static Level load(Loading& loading);
  static Node schema();  // of its file: see schema.hpp
};

}  // namespace vole
