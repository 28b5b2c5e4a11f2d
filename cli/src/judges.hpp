// What is wrong with files beside each other, though each of them can be read. Unlike what a rule finds it cannot be let pass.
#pragma once

#include <string>

#include "vole/app/project.hpp"
#include "vole/input/controls.hpp"
#include "vole/level/level.hpp"
#include "vole/world/compiled_kinds.hpp"

// Throws Error for a picture that is missing or cannot be read.
void judge_icon(const vole::Project& project);
// A place outside its level.
void judge_place(const vole::Level& level, const vole::LevelPlace& place, vole::Report& report);
// A player whose controls are not in controls.toml. `otherwise`: where the kind is written.
void judge_player(const vole::CompiledKind& kind, const vole::Controls& controls,
                  const vole::FilePosition& otherwise, vole::Report& report);
// Throws Error for a recording of another game or rate of ticks, and for controls that are not there. nullptr: what could not be read.
void judge_recording(const std::string& file, const vole::Project* project, const vole::Controls* controls);
