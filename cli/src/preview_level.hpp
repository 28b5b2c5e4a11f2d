// A level as a picture.
#pragma once

#include <string>

#include "vole/level/level.hpp"

// All of it, with its things where they are at first; `with_shapes`: with what is solid, bodies and zones.
void preview_level(vole::Catalog& catalog, const vole::Level& level, bool with_shapes,
                   const std::string& output);
