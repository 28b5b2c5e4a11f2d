// A tileset as a picture: its tiles, and its materials case by case.
#pragma once

#include "vole/level/tileset.hpp"

void preview_tileset(const vole::Tileset& tileset, const std::string& output);
// Of each material which case is which, and an island of it.
void preview_edges(const vole::Tileset& tileset, const std::string& output);
