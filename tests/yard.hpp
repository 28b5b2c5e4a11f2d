// A yard with a floor, and kinds to put into it.
#pragma once

#include <fmt/core.h>

#include <algorithm>
#include <string_view>
#include <vector>

#include "test_stage.hpp"
#include "vole/input/intent.hpp"
#include "vole/world/motion.hpp"

// Of 40 x 16 cells of 16 pixels.
struct Yard : TestStage {
  TempFolder folder;
  vole::Stage* stage = nullptr;

  // With more kinds, tiles, other rows, another file and more letters.
  explicit Yard(const std::string& more, const std::string& tiles = {}, const std::string& rows = {},
                const std::pair<std::string, std::string>& file = {}, const std::string& letters = {}) {
    if (!file.first.empty()) folder.write(file.first, file.second);
    folder.write("game.toml", R"(title = "Yard"
id = "yard"
first_scene = "cues"

[categories]
walkers = { blocks = ["ground", "doors", "crates", "lifts", "boards"] }
crates = { blocks = ["ground", "crates", "lifts", "boards", "doors"] }
doors = {}
lifts = {}
boards = {}
seeds = { notices = ["walkers"] }
)");
    folder.write("kinds.toml", R"([walker]
body = { size = [10, 10], category = "walkers" }
side_mover = { speed = 90, acceleration = 100000, deceleration = 100000 }
[crate]
body = { size = [12, 12], category = "crates" }
side_mover = { speed = 0 }
[door]
body = { size = [6, 40], category = "doors" }
[lift]
body = { size = [32, 8], category = "lifts" }
[board]
body = { size = [32, 4], category = "boards", one_way = "up" }
[bulb]
shapes = [{ at = [0, -6], radius = 6 }]
body = { category = "seeds" }
tags = ["seed"]
)" + more);
    folder.write("assets/soil.tileset.toml",
                 "size = 16\n[tiles]\nsoil = { colour = \"#4a3026\", solid = true }\n"
                 "bank = { colour = \"#7a4a33\", shape = \"rise\" }\n"
                 "plank = { colour = \"#7a4a33\", shape = \"upper half\", one_way = \"up\" }\n" +
                     tiles);
    const std::string level = fmt::format(R"(tileset = "soil"
[letters]
"." = ""
"#" = "soil"
"/" = "bank"
"=" = "plank"
{}[[layers]]
name = "ground"
rows = [
{}]
[[zones]]
name = "corner"
area = [560, 200, 40, 40]
)",
                                          letters, rows.empty() ? plain_rows() : rows);
    folder.write("levels/yard.level.toml", level);
    stage = &start(folder);
    stage->load_level("yard");
  }

  static std::string plain_rows() {
    std::string rows;
    for (int y = 0; y < 16; ++y) rows += fmt::format("\"{}\",\n", std::string(40, y == 15 ? '#' : '.'));
    return rows;
  }

  vole::Pose& pose(vole::Entity thing) { return stage->get<vole::Pose>(thing); }
  vole::Touching& touching(vole::Entity thing) { return stage->get<vole::Touching>(thing); }
  void walk(vole::Entity thing, float direction) {
    stage->get<vole::Intent>(thing).direction = {direction, 0};
  }
};

inline constexpr float floor_y = 240;

// The floor with a hill on it, four cells high, from the tenth column to the 24th.
inline std::string hill_rows() {
  std::string rows;
  for (int y = 0; y < 16; ++y) {
    std::string row(40, y == 15 ? '#' : '.');
    if (y >= 11 && y < 15) {
      row[static_cast<std::size_t>(10 + 14 - y)] = '/';
      for (int x = 11 + 14 - y; x < 25; ++x) row[static_cast<std::size_t>(x)] = '#';
    }
    rows += fmt::format("\"{}\",\n", row);
  }
  return rows;
}

// A floor, and above it shelves of one to five tiles by chance, each of one of the letters; what is "H" stands upright.
inline std::vector<std::string> rows_of_shelves(vole::Random& chance, int count, std::string_view letters) {
  std::vector<std::string> rows(16, std::string(40, '.'));
  rows[15] = std::string(40, '#');
  for (int i = 0; i < count; ++i) {
    const int y = below(chance, 14) + 1, from = below(chance, 38), length = 1 + below(chance, 5);
    const char what = letters[static_cast<std::size_t>(below(chance, static_cast<int>(letters.size())))];
    for (int k = 0; k < length; ++k)
      if (what == 'H')
        rows[static_cast<std::size_t>(std::min(y + k, 14))][static_cast<std::size_t>(from)] = what;
      else
        rows[static_cast<std::size_t>(y)][static_cast<std::size_t>(std::min(from + k, 39))] = what;
  }
  return rows;
}
