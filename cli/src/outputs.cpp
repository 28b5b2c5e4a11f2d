#include "outputs.hpp"

#include <algorithm>

#include "rules/rules.hpp"
#include "vole/base/error.hpp"
#include "vole/base/file_set.hpp"
#include "vole/base/files.hpp"

bool is_file_name(std::string_view name) {
  const auto fits = [](char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '-' ||
           c == '_' || c == '.';
  };
  return !name.empty() && name.size() <= 100 && name.front() != '.' &&
         std::all_of(name.begin(), name.end(), fits);
}

void expect_no_game_file(const std::string& output, const std::string& game_folder) {
  if (!vole::file_exists(output)) return;
  std::vector<std::string> inputs;
  for (const std::string& file : files_of_game(game_folder))
    if ((file.find('/') == std::string::npos && file.ends_with(".toml")) || file.starts_with("assets/") ||
        file.starts_with("levels/") || file.starts_with("kinds/"))
      inputs.push_back(vole::join_path(game_folder, file));
  vole::refuse_to_replace(output, inputs, "is a file of the game");
}
