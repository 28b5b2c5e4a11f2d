// What a player has set, kept from one start of the game to the next in the usual place for such files: settings.toml below
// $XDG_DATA_HOME/ID (or ~/.local/share/ID), on Windows %APPDATA%\\ID. Of a page the browser keeps it.
#pragma once

#include <string>
#include <vector>

#include "vole/base/error.hpp"
#include "vole/input/rebinding.hpp"

namespace vole {

struct PlayerSettings {
  std::vector<Rebinding> bindings;  // one for each thing that is bound otherwise
};
template <class V>
void describe(V& v, PlayerSettings& settings) {
  v("bindings", settings.bindings, items(1024));
}

// The file in the folder where things are kept for the player; empty for none.
std::string settings_file(const std::string& folder);
// What the file says. No file: nothing is set; neither where something is wrong with it, which goes to the report.
PlayerSettings read_settings(const std::string& file, Report& report);
// Whole or not at all. Throws Error.
void write_settings(const std::string& file, const PlayerSettings& settings);
// One more; an empty one forgets all.
void add_rebinding(PlayerSettings& settings, const Rebinding& rebinding);

}  // namespace vole
