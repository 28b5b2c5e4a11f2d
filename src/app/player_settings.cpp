#include "vole/app/player_settings.hpp"

#include <algorithm>
#include <filesystem>

#include "vole/base/files.hpp"
#include "vole/base/paths.hpp"
#include "vole/base/reading.hpp"
#include "vole/base/writing.hpp"

namespace vole {
std::string settings_file(const std::string& folder) {
  return folder.empty() ? std::string() : join_path(folder, "settings.toml");
}

PlayerSettings read_settings(const std::string& file, Report& report) {
  PlayerSettings settings;
  if (file.empty() || !file_exists(file)) return settings;
  Report wrong;
  try {
    read(read_toml(file), settings, wrong);
  } catch (const Error& error) {
    wrong.add(error);
  }
  if (wrong.problems().empty()) return settings;
  for (const Problem& problem : wrong.problems()) report.add(Error(std::vector<Problem>{problem}));
  return {};
}

void write_settings(const std::string& file, const PlayerSettings& settings) {
  if (file.empty()) return;
  std::error_code failed;
  std::filesystem::create_directories(std::filesystem::u8path(folder_of(file)), failed);
  write_whole(file, "# What the player has set. Delete this file to forget it.\n" + to_toml(settings));
}

void add_rebinding(PlayerSettings& settings, const Rebinding& rebinding) {
  if (rebinding.name.empty()) return settings.bindings.clear();
  std::erase_if(settings.bindings, [&](const Rebinding& known) {
    return known.player == rebinding.player && known.name == rebinding.name && known.side == rebinding.side;
  });
  settings.bindings.push_back(rebinding);
}

}  // namespace vole
