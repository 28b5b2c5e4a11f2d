// missing-edges: a material of tiles without a tile for each of its cases, so that the nearest is shown.
#include <algorithm>

#include "game_under_check.hpp"

namespace {

using vole::Level;

// Where a level of the game has ground with these neighbours first; empty where none has.
std::string first_seen(GameUnderCheck& game, const std::string& material,
                       const std::vector<vole::Neighbours>& missing) {
  for (const std::string& name : game.catalog.names<Level>()) {
    try {
      const vole::Asset<Level> level = game.catalog.get<Level>(name);
      const std::vector<vole::TileMaterial>& materials = level->tiles.materials();
      std::string found;
      for (const vole::LevelLayer& layer : level->layers)
        layer.painted.visit([&](vole::IVec2 cell, std::uint8_t painted) {
          const vole::TileMaterial& its = materials[painted - 1u];
          if (!found.empty() || its.name != material) return;
          const vole::Neighbours neighbours = vole::that_matter(
              vole::neighbours_of(materials, layer.painted, layer.tiles, cell), its.neighbours);
          if (std::find(missing.begin(), missing.end(), neighbours) != missing.end())
            found = fmt::format("level \"{}\" has \"{}\" in cell {}, {}", name,
                                vole::to_text(neighbours, its.neighbours), cell.x, cell.y);
        });
      if (!found.empty()) return found;
    } catch (const vole::Error&) {
      // Reported where it is read.
    }
  }
  return {};
}

void look_at(GameUnderCheck& game, const vole::TileMaterial& material, const std::string& file) {
  const std::vector<vole::Neighbours> missing = material.missing();
  if (missing.empty()) return;
  constexpr std::size_t most_named = 4;
  std::string names;
  for (std::size_t i = 0; i < std::min(missing.size(), most_named); ++i)
    names += fmt::format("{}\"{}\"", i == 0 ? "" : ", ", vole::to_text(missing[i], material.neighbours));
  if (missing.size() > most_named) names += fmt::format(" and {} more", missing.size() - most_named);
  game.add("missing-edges", file,
           fmt::format("material \"{}\" has no tile for {} of its {} cases ({}), and shows the nearest",
                       material.name, missing.size(), vole::cases_of(material.neighbours).size(), names),
           first_seen(game, material.name, missing));
}

}  // namespace

void find_missing_edges(GameUnderCheck& game) {
  for (const std::string& name : game.catalog.names<vole::Tileset>()) {
    try {
      for (const vole::TileMaterial& material : game.catalog.get<vole::Tileset>(name)->materials)
        look_at(game, material, fmt::format("assets/{}.tileset.toml", name));
    } catch (const vole::Error&) {
      // Reported where it is read.
    }
  }
}
