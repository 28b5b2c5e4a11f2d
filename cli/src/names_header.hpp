// The C++ header that makes a game's names constants: see vole/asset/names.hpp.
#pragma once

#include <string>
#include <vector>

#include "vole/asset/sheet.hpp"

struct GameNames {
  std::vector<std::shared_ptr<const vole::Sheet>> sheets;
  std::vector<std::string> tilesets, fonts, levels, sounds, actions, axes;
  std::vector<std::string> kinds, tags, categories, scenes, facts, cues;
  std::vector<std::string> places, zones, paths,
      pieces;  // of all levels; `pieces` are the lists that levels choose from
};

// Everything that the game in the catalog's folder has by name. Throws Error for what cannot be read.
GameNames names_of_game(vole::Catalog& catalog);

// The first line of the header.
inline constexpr std::string_view made_by_names =
    "// Made by `vole atlas` from the game's files; changes are lost when it runs again.";

// What a name is called in C++: "things/potting-shed" is things_potting_shed.
std::string cpp_identifier(std::string_view name);

// Throws Error when two names would become the same in C++.
std::string names_header(const GameNames& names);
