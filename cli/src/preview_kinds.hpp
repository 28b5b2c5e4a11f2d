// Kinds as pictures: what their things look like, and what of them collides.
#pragma once

#include <string>

#include "vole/asset/sheet.hpp"
#include "vole/physics/collision_world.hpp"

// The colour of one shape of a body, by what that is.
vole::Colour mark_of(const vole::CollisionBody& body, std::uint32_t place);

// The kinds of a file, each with its first picture, its body, its checks and its position.
void preview_kinds(vole::Catalog& catalog, const std::string& file, const std::string& output);
// The frames of a sheet with the bodies of the kinds that show it. Throws Error where there is none.
void preview_sheet_shapes(vole::Catalog& catalog, const vole::Sheet& sheet, const std::string& file,
                          const std::string& output);
