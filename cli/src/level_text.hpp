// A level as the text of its file, for whatever writes levels.
//
//   LevelText level;
//   level.tilesets = {"garden"};
//   level.tiles = {"", "turf"};
//   level.layers.push_back({"ground", {2, 1}, {0, 1}});
//   write_level(level, "levels/beds.level.toml");
#pragma once

#include <cstdint>
#include <string>
#include <vector>

#include "vole/base/vec.hpp"

struct LevelText {
  struct Layer {
    std::string name;
    vole::IVec2 cells{0, 0};
    std::vector<std::uint32_t> values;  // row by row, indices into `tiles`
  };
  struct Place {
    std::string kind;
    vole::IVec2 cell{0, 0};
  };

  std::vector<std::string> tilesets;
  std::vector<std::string> tiles;  // as cells name them; "" is none
  std::vector<Layer> layers;       // all of one size
  std::vector<Place> places;
};

// Rows of letters where there are letters enough and rows are short; else a CSV for each layer beside the level. Has a layer "things"
// in any case. Throws vole::Error, and writes nothing, where one of the files is there already.
void write_level(const LevelText& level, const std::string& file);
