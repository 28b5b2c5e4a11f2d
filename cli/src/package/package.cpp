#include <fmt/core.h>

#include "commands.hpp"
#include "game_files.hpp"
#include "package_targets.hpp"
#include "serve.hpp"
#include "vole/base/error.hpp"

std::vector<PackedFile> packed_game(const vole::Project& project, const std::string& folder) {
  std::vector<PackedFile> files;
  for (const std::string& file : files_to_send(project.root))
    files.push_back(
        {folder + file, vole::read_bytes(vole::join_path(project.root, file), std::size_t{1} << 30)});
  return files;
}

std::string package_name(const vole::Project& project, const std::string& target) {
  return fmt::format("{}-{}-{}", project.id.value, project.version.value, target);
}

int package(const PackageOptions& options, const std::string& tool) {
  const vole::Project project = vole::read_project(vole::join_path(options.folder, "game.toml"));
  const PackageWish wish{options, project, tool};
  std::string page;
  for (const std::string& target : options.targets) {
    const std::vector<std::string> made = target == "web"       ? package_for_web(wish)
                                          : target == "windows" ? package_for_windows(wish)
                                                                : package_for_linux(wish);
    for (const std::string& path : made) fmt::print("{}\n", path);
    if (target == "web") page = made.front();
  }
  if (options.serve) serve_folder(page);
  return 0;
}
