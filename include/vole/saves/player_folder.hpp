// Where a system keeps what belongs to a player.
#pragma once

#include <string>

namespace vole {

// The folder of a game with this id: below $XDG_DATA_HOME (or ~/.local/share), on Windows below %APPDATA%; of a page one that the browser
// keeps. Empty where the system has no such place. It need not be there yet.
std::string player_folder(const std::string& id);

}  // namespace vole
