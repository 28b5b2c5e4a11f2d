// hollow-tile: a tile that looks as solid as its neighbour, by its name, and is not.
#include <algorithm>

#include "game_under_check.hpp"

namespace {

using vole::IVec2;
using vole::Level;

// The name without what tells one of several apart: "turf" of "turf_left", "turf-2" and "turf3".
std::string_view stem_of(std::string_view name) {
  const std::string_view first = name.substr(0, name.find_first_of("_- "));
  const std::size_t last = first.find_last_not_of("0123456789");
  return first.substr(0, last == std::string_view::npos ? first.size() : last + 1);
}

class HollowTiles {
 public:
  HollowTiles(GameUnderCheck& game, const Level& level) : game_(game), level_(level) {}

  void look() {
    for (const vole::LevelLayer& layer : level_.layers) {
      if (layer.tiles.empty() || !layer.blocks()) continue;
      for (int y = 0; y < level_.cells.y; ++y)
        for (int x = 0; x < level_.cells.x; ++x) look_at(layer, {x, y});
    }
  }

 private:
  const vole::Tile* tile(const vole::LevelLayer& layer, IVec2 at) const {
    const int index = vole::TileCell::from(layer.tiles.find(at)).tile;
    return index < 0 ? nullptr : &level_.tiles.tile(index);
  }

  // Each tile is reported once.
  void look_at(const vole::LevelLayer& layer, IVec2 at) {
    const vole::Tile* const here = tile(layer, at);
    if (!here || here->solid() || told_.count(here->name) != 0 || level_.solid.solid(at.x, at.y)) return;
    for (const IVec2 step : {IVec2{-1, 0}, IVec2{1, 0}}) {
      const vole::Tile* const beside = tile(layer, at + step);
      if (!beside || !beside->solid() || stem_of(beside->name) != stem_of(here->name)) continue;
      told_.insert(here->name);
      return game_.add("hollow-tile", "levels/" + level_.name + ".level.toml",
                       fmt::format("the tile \"{}\" in cell {}, {} is not solid, and \"{}\" beside it is",
                                   here->name, at.x, at.y, beside->name),
                       "give it solid = true or a shape, or another name where it is walked through");
    }
  }

  GameUnderCheck& game_;
  const Level& level_;
  std::set<std::string> told_;
};

}  // namespace

void find_hollow_tiles(GameUnderCheck& game) {
  for (const std::string& name : game.catalog.names<Level>()) {
    try {
      HollowTiles(game, *game.catalog.get<Level>(name)).look();
    } catch (const vole::Error&) {
      // Reported where it is read.
    }
  }
}
