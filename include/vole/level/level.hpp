// A level: layers of tiles and pictures in drawing order, the places of things, and what is solid. Read
// from levels/NAME.level.toml:
//
//   tileset = "earth"                        # or several: ["earth", "cellar"]
//   letters = { "." = "", "#" = "earth", "/" = "bank", "\\" = "bank, mirrored" }   # of the rows; "" is nothing; what may be
//                                            # written for a cell: see tile_table.hpp
//   cells = [200, 12]                        # its size, where no layer has rows
//
//   [[layers]]
//   name = "hedges"
//   picture = "hedges"                       # repeated sideways, its bottom at the level's bottom
//   repeat = "across"                        # or "none", "down", "both"
//   edge = "bottom"                          # or "top": at the level's top
//   cover = false                            # true: scaled to cover the canvas, whatever the camera does
//   parallax = [0.3, 0.1]                    # how far it goes with the camera: 0 not at all, 1 with the level
//   tint = "#8d93a6"                         # of all that is in it, things too
//   opacity = 0.8
//   visible = true
//   lit = true                               # false, for the last layers: drawn over the dark
//
//   [[layers]]
//   name = "ground"
//   rows = ["....", "####"]                  # or csv = "ground.csv", beside the level: letters or what stands for them
//   solid = true                             # false: nobody runs into its tiles
//   order = "depth"                          # or "feet": lower feet are drawn over higher ones
//
//   [[places]]
//   kind = "bulb"
//   cell = [2, 0]                            # feet in the middle of the cell's bottom; or at = [40, 16], in pixels
//   pivot = "bottom"                         # the spot of the cell that is meant
//   offset = [8, 0]                          # and so many pixels off it
//   mirrored = true                              # it faces left
//   name = "first bulb"
//   keep = true                             # of a piece (pieces.hpp): also when the piece leaves
//   bulb = { worth = 5 }                     # put over what the kind says
//
//   [[places]]                               # a mere place, to be found by its name
//   name = "before the shed"
//   at = [1090, 288]
//
//   [[scattered]]                            # so many things, by chance and a seed
//   kind = "bulb"
//   count = 12
//   zone = "bed"                             # in all of the level when left out
//   on = ["turf"]                            # tiles or materials: on top of what is solid, in the cell of what is not
//   seed = 7
//   apart = 16                               # pixels between two
//
//   [light]                                  # how dark it is, but for lamps (world/lamp.hpp)
//   darkness = 0.8                           # 0: day, 1: only its colour is left
//   colour = "#20264a"
//   steps = 4                                # of brightness around lamps; 0: as many as there are
//   dither = true                            # one step goes over into the next by a pattern
//   wall_depth = 4                           # pixels that light goes into walls
//
//   [[zones]]
//   name = "doorstep"                        # met like a thing: see cues.hpp
//   area = [1004, 228, 12, 60]               # in pixels: x, y, width, height; or points = [[0, 0], [90, 10], [40, 60]]
//   darkness = 1                             # in it
//   fade = 32                                # pixels inside its border over which it gets so dark
//
// [[paths]] are described in level_path.hpp; [[openings]], [pieces] and [endless] in pieces.hpp. A level is at most 65,536 pixels long and high, so that each position in it is
// exact to 1/256 of a pixel.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <vector>

#include "vole/asset/repeat.hpp"
#include "vole/base/describe.hpp"
#include "vole/level/layer_look.hpp"
#include "vole/level/level_path.hpp"
#include "vole/level/level_place.hpp"
#include "vole/level/level_zone.hpp"
#include "vole/level/pieces.hpp"
#include "vole/level/tile_table.hpp"
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

// How dark a level is: see the file above.
struct LevelLight {
  float darkness = 0;
  Colour colour{0, 0, 0, 255};
  int steps = 4;
  bool dither = true;
  int wall_depth = 4;
};
template <class V>
void describe(V& v, LevelLight& light) {
  v("darkness", light.darkness, within(0, 1));
  v("colour", light.colour);
  v("steps", light.steps, within(0, 64));
  v("dither", light.dither);
  v("wall_depth", light.wall_depth, within(0, 64));
}

struct LevelLayer {
  std::string name;
  Vec2 parallax{1, 1};
  LayerLook look;
  bool solid = true;  // what of its tiles is; also needs to go along with the level
  bool lit = true;
  TileGrid tiles;        // of the level's size
  MaterialGrid painted;  // the same: with which materials
  std::shared_ptr<const Sheet> picture;
  Frame frame;        // its first
  Vec2 offset{0, 0};  // of the picture
  Repeat repeat = Repeat::across;
  LayerEdge edge = LayerEdge::bottom;
  bool cover = false;
  LayerOrder order = LayerOrder::depth;

  bool blocks() const { return solid && parallax == Vec2{1, 1}; }
};

struct LevelScatter {
  std::string kind;  // empty: nothing comes to life there
  int count = 1;
  std::string zone;           // empty: all of the level
  std::vector<int> on_tiles;  // sorted indices; with on_materials empty: anywhere
  std::vector<int> on_materials;
  std::uint64_t seed = 0;
  float apart = 0;
  TomlValue overrides;
  FilePosition where;
};

class Level {
 public:
  // Made and ended in one place, not anew in each source that uses it.
  Level();
  Level(const Level&);
  Level(Level&&) noexcept;
  Level& operator=(const Level&) = delete;
  Level& operator=(Level&&) noexcept;
  ~Level();

  std::string name;
  Colour sky{0, 0, 0, 255};
  LevelLight light;
  TileTable tiles;
  IVec2 cells{0, 0};
  std::vector<LevelLayer> layers;
  std::vector<LevelPlace> places;  // those that were scattered come last
  std::vector<LevelScatter> scatters;
  std::vector<LevelZone> zones;
  std::vector<LevelPath> paths;
  std::vector<LevelOpening> openings;
  std::vector<PieceList> pieces;
  std::optional<EndlessLevel> endless;
  SolidGrid solid;

  IVec2 tile_size() const { return tiles.tile_size(); }
  // In pixels.
  IVec2 size() const { return cells * tile_size(); }
  // The index of the layer of this name; throws Error at `asked` with the nearest name.
  std::size_t layer(std::string_view layer_name, const FilePosition& asked = {}) const;
  // Throw Error with the nearest name.
  const LevelPlace& place(std::string_view place_name, const FilePosition& asked = {}) const;
  const LevelZone& zone(std::string_view zone_name, const FilePosition& asked = {}) const;
  const LevelPath& path(std::string_view path_name, const FilePosition& asked = {}) const;

  // Where things of a scatter come to lie: always the same for the same seed, and a change elsewhere in the level moves none.
  // Fewer than asked for where there is no room.
  std::vector<Vec2> scattered(const LevelScatter& scatter, std::uint64_t seed) const;
};

inline constexpr int longest_level = 65536;  // pixels

// What of a layer's tile is solid besides what is there already: a full cell stays full.
void put_solid(SolidGrid& solid, IVec2 at, const TileTable& tiles, const TileCell& tile);

template <>
struct AssetType<Level> {
  static constexpr std::string_view word = "level";
  static constexpr std::string_view folder = "levels";
  static constexpr std::string_view ending = ".level.toml";
  static Level load(Loading& loading);
  static TomlValue schema();  // of its file: see schema.hpp
};

}  // namespace vole
