// What is in a game's folder: which files there are, and which of them belong to others.
#pragma once

#include <set>
#include <string>
#include <vector>

#include "vole/asset/catalog.hpp"

// The names of the sheets that are worth packing or naming: not the pictures that only serve tilesets, other
// sheets, an atlas or the icon.
std::vector<std::string> sheets_of_game(vole::Catalog& catalog);

// The pictures that tilesets alone are cut from: an atlas has them whole.
std::set<std::string> pictures_of_tilesets(vole::Catalog& catalog);

// The pictures that tilesets, atlases and sheets of other names are made of.
std::set<std::string> pictures_of_others(vole::Catalog& catalog);

// The files below a game's folder that it needs to run, as a package has them. Throws Error when one of them leads out of
// the folder: what it shows there is no part of the game.
std::vector<std::string> files_to_send(const std::string& root);

// Those of a game's files that say or are something by name: what stands in assets, levels and kinds, and the TOML files beside them.
std::vector<std::string> files_with_names(const std::string& root);

// The folder of the game that a file or folder lies in (or is): the nearest one that has a game.toml; empty
// when there is none.
std::string game_around(const std::string& path);
