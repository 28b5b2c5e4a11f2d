// The components of a game's own that tiles have, as their tileset says:
//
//   [tiles.pond]
//   cell = [4, 0]
//   water = { depth = 3 }                  # struct Water, which the game knows as "water"
#pragma once

#include <algorithm>
#include <memory>
#include <vector>

#include "vole/level/tile_table.hpp"
#include "vole/world/component_types.hpp"

namespace vole {

class TileComponents {
 public:
  TileComponents() = default;
  // What is wrong goes to the report; unknown components too, unless they are to be skipped.
  TileComponents(const TileTable& tiles, const ComponentTypes& types, UnknownComponents unknown,
                 Report& report);

  // nullptr when the tile has none.
  template <Described T>
  const T* find(int tile) const {
    return static_cast<const T*>(find(tile, described_type<T>().number()));
  }
  // The same by the number of its type; and whether any tile has one.
  const void* find(int tile, std::size_t type) const;
  bool any(std::size_t type) const { return std::find(types_.begin(), types_.end(), type) != types_.end(); }

 private:
  struct Value {
    int tile = 0;
    std::size_t type = 0;
    std::shared_ptr<const void> component;
  };

  std::vector<Value> values_;       // by tile
  std::vector<std::size_t> types_;  // of them, each once
};

}  // namespace vole
