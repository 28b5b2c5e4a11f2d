// Ground that is painted by its name and gets its edges by itself: which tile stands in a cell follows from the neighbours
// that are of the same ground. In NAME.tileset.toml:
//
//   [materials.soil]
//   neighbours = "four"           # 16 cases; "diagonal": 16 from the four corners; "eight": 47 from both
//   first = [0, 2]                # where in the picture the first case lies; the others follow in its row,
//   columns = 4                   # and so many rows of so many
//   missing = [5, 10]             # cases that are not drawn
//   solid = true                  # and whatever else a tile may say
//   variants = [{ case = 15, cells = [[4, 2], [5, 2]], weight = 0.1 }]
//   joins = ["rise", "stone"]     # tiles and materials that count as this ground for it
//
//   [materials.lawn]                 # or case by case, from tiles of the tileset: which neighbours are of the material
//   cases."left, right, below" = "turf"
//   cases."all" = ["earth", { tile = "stones", weight = 0.1 }]
//
// The number of a case is the sum of the neighbours that are of the material, clockwise:
//
//   four:     above 1, right 2, below 4, left 8                                     (0 to 15)
//   diagonal: above right 1, below right 2, below left 4, above left 8              (0 to 15)
//   eight:    above 1, above right 2, right 4, below right 8, below 16, below left 32, left 64, above left 128: of these sums
//             there are 47, since a corner counts only where both sides beside it do; they are counted 0 to 46 in their order
//
// A case that is not there is shown by the nearest that is: the fewest sides differ, then the fewest corners, and then the one
// with more neighbours. What lies outside the level counts as the same ground.
#pragma once

#include <array>
#include <cstdint>
#include <string>
#include <string_view>
#include <vector>

#include "vole/asset/tile_cell.hpp"
#include "vole/base/block_grid.hpp"

namespace vole {

enum class NeighbourSet : std::uint8_t { four, diagonal, eight };
constexpr auto enum_names(NeighbourSet) {
  return std::array<std::string_view, 3>{"four", "diagonal", "eight"};
}

// Which of a cell's eight neighbours are of its material, as the bits of "eight" above.
using Neighbours = std::uint8_t;
inline constexpr int neighbour_count = 8;
// By bit: where it lies, and what it is called.
inline constexpr std::array<IVec2, neighbour_count> neighbour_steps{IVec2{0, -1}, IVec2{1, -1}, IVec2{1, 0},
                                                                    IVec2{1, 1},  IVec2{0, 1},  IVec2{-1, 1},
                                                                    IVec2{-1, 0}, IVec2{-1, -1}};
inline constexpr std::array<std::string_view, neighbour_count> neighbour_names{
    "above", "above right", "right", "below right", "below", "below left", "left", "above left"};

// What of the neighbours matters to a set: the four sides alone; the corners alone, of which each needs both sides beside it; or both.
Neighbours that_matter(Neighbours neighbours, NeighbourSet set);
// All that can matter, in the order of their numbers: 16 or 47.
const std::vector<Neighbours>& cases_of(NeighbourSet set);
// "left, below"; "none" and "all" of a set.
std::string to_text(Neighbours neighbours, NeighbourSet set);

// Tiles of one ground.
struct TileMaterial {
  struct Choice {
    int tile = 0;  // index of the tile
    double weight = 1;
  };
  struct Case {
    Neighbours neighbours = 0;
    std::vector<Choice> choices;  // at least one
  };

  std::string name;
  NeighbourSet neighbours = NeighbourSet::four;
  std::uint64_t seed = 0;                         // of the variants
  std::vector<Case> cases;                        // that are there, at least one
  std::vector<int> joined_tiles;                  // sorted indices
  std::vector<int> joined_materials;              // sorted indices
  std::array<std::uint8_t, 256> by_neighbours{};  // the place among the cases, for any neighbours

  // Works out by_neighbours.
  void find_nearest_cases();
  // Those of its set that have no tile of their own.
  std::vector<Neighbours> missing() const;
  // The index of the tile for these neighbours in a cell; of variants always the same in the same cell.
  int tile(Neighbours around, std::int64_t x, std::int64_t y) const;
};

inline constexpr std::size_t most_materials = 255;

// Which neighbours of a painted cell count as its ground.
Neighbours neighbours_of(const std::vector<TileMaterial>& materials, const MaterialGrid& painted,
                         const TileGrid& tiles, IVec2 cell);

// The material's tile for a cell, from the materials and tiles around it. `origin` is added to the cell where variants are chosen.
std::uint16_t edge_tile(const std::vector<TileMaterial>& materials, const MaterialGrid& painted,
                        const TileGrid& tiles, IVec2 cell, IVec2 origin = {0, 0});

}  // namespace vole
