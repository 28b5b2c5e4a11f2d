// The cells of a level that are not as its files have them, each once.
#pragma once

#include <cstdint>
#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "vole/base/field_type.hpp"

namespace vole {

struct ChangedCell {
  std::string layer;
  IVec2 cell{0, 0};
  std::string tile;  // as TileTable::paint reads it; empty: nothing
};
template <class V>
void describe(V& v, ChangedCell& changed) {
  v.state("layer", changed.layer);
  v.state("cell", changed.cell);
  v.state("tile", changed.tile);
}

// In the order of layers (by their names), rows and columns, in whatever order they came. As state a list of ChangedCell.
class ChangedCells {
 public:
  bool empty() const { return tiles_.empty(); }
  // Both tell whether that is anything new.
  bool set(std::string_view layer, IVec2 cell, std::string_view tile);
  bool forget(std::string_view layer, IVec2 cell);
  // The same for the same cells, in whatever order they came; 0 for none.
  std::uint64_t key() const { return key_; }
  // A copy of them all.
  std::vector<ChangedCell> list() const;

 private:
  struct Place {
    std::string layer;
    int y = 0, x = 0;

    bool operator<(const Place& other) const;
  };

  static std::uint64_t key_of(const Place& place, std::string_view tile);

  std::map<Place, std::string> tiles_;
  std::uint64_t key_ = 0;  // the sum of those of all cells
};

namespace detail {
const FieldType& type_of(Tag<ChangedCells>);
}

}  // namespace vole
