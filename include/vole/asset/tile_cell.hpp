// A cell of a layer of tiles: which tile is in it, and which way round.
#pragma once

#include <cstddef>
#include <cstdint>

namespace vole {

template <class Value>
class BlockGrid;

// Mirrored first, left for right, and then turned clockwise by so many quarters.
struct TileCell {
  int tile = -1;  // its index among the tiles of the level; -1: nothing
  bool mirrored = false;
  int quarters = 0;

  // As one number: 0 for nothing, else the tile's index and 1 more in the lower 13 bits, and the way round above them.
  constexpr std::uint16_t number() const {
    if (tile < 0) return 0;
    return static_cast<std::uint16_t>((tile + 1) | (mirrored ? 1 << 13 : 0) | (quarters & 3) << 14);
  }
  static constexpr TileCell from(std::uint16_t number) {
    return {(number & 0x1fff) - 1, (number >> 13 & 1) != 0, number >> 14};
  }
  constexpr bool upright() const { return !mirrored && quarters == 0; }

  friend constexpr bool operator==(const TileCell&, const TileCell&) = default;
};
// Of the tilesets of a level together.
inline constexpr std::size_t most_tiles = 0x1fff;

// The cells of a layer: TileCell::number; and which material each of them is painted with: its index and 1 more. For what is in them
// include base/block_grid.hpp.
using TileGrid = BlockGrid<std::uint16_t>;
using MaterialGrid = BlockGrid<std::uint8_t>;

}  // namespace vole
