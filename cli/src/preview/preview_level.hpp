// A level as a picture.
#pragma once

#include <functional>
#include <string>

#include "preview_page.hpp"
#include "vole/draw/draw_list.hpp"
#include "vole/level/level.hpp"

class StagedLevel;

// All of it, with its things where they are at first; `with_shapes`: with what is solid, bodies, zones, paths and openings.
void preview_level(vole::Catalog& catalog, const vole::Level& level, bool with_shapes,
                   const std::string& output);
// As the game shows it when it begins: dark where it is dark, and lit by its lamps.
void preview_light(vole::Catalog& catalog, const vole::Level& level, const std::string& output);
// Where a thing of a kind gets to from its place, and how; prints what it does not reach.
void preview_reach(vole::Catalog& catalog, const vole::Level& level, const std::string& kind,
                   const std::string& output);

// In pixels. Throws Error for a level without cells, or one that is too large for a picture.
vole::IVec2 size_of_picture(const vole::Level& level);
// As large as it fits on a page, with what its colours mean below.
void save_level(const vole::Image& image, const std::string& output, const paper::Legend& legend = {});
// As the game shows it when it begins; with something drawn over it, and then without its darkness.
using DrawOver = std::function<void(StagedLevel& staged, vole::DrawList& list, vole::LayerId layer)>;
vole::Image picture_of(vole::Catalog& catalog, const vole::Level& level, const DrawOver& draw_over = {});
