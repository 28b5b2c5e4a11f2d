#include <fmt/core.h>

#include <algorithm>
#include <filesystem>

#include "command.hpp"
#include "commands.hpp"
#include "game_files.hpp"
#include "package_targets.hpp"
#include "serve.hpp"
#include "vole/base/error.hpp"
#include "vole/base/file_set.hpp"
#include "vole/base/paths.hpp"

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

namespace {

// Better now than after the build.
void expect_outputs(const PackageOptions& options, const vole::Project& project) {
  for (const std::string& target : options.targets) {
    const std::string archive = vole::join_path(
        options.output, package_name(project, target) + (target == "linux" ? ".tar.gz" : ".zip"));
    vole::expect_writable(archive);
    if (!options.force && vole::file_exists(archive) && !is_package(archive))
      throw vole::Error(vole::FilePosition::whole_file(archive),
                        "is there already, and is no package that Vole made",
                        "give another output folder, or replace the file with --force");
  }
}

// A program that is built where it is developed has a file beside it that names its game's folder.
void expect_program_of_game(const PackageOptions& options) {
  const std::string folder_file = options.program + ".folder";
  if (options.program.empty() || !vole::file_exists(folder_file)) return;
  std::string folder = vole::read_text(folder_file, 65536);
  while (folder.ends_with('\n')) folder.pop_back();
  std::error_code failed;
  if (vole::folder_exists(folder) &&
      !std::filesystem::equivalent(vole::to_path(folder), vole::to_path(options.folder), failed) && !failed)
    throw vole::Error(
        vole::FilePosition::whole_file(options.program),
        fmt::format("is the program of the game in {}, and not of the one in {}", folder, options.folder));
}

void package(const PackageOptions& options, const std::string& tool) {
  const vole::Project project = vole::read_project(vole::join_path(options.folder, "game.toml"));
  expect_outputs(options, project);
  expect_program_of_game(options);
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
}

}  // namespace

void add_package(CommandLine& line) {
  const auto options = std::make_shared<PackageOptions>();
  Command command =
      line.add("package", "Make the build to send",
               "  vole package my-game -o builds\n"
               "  vole package my-game --target linux --target windows -o builds\n"
               "  vole package my-game --target web --serve",
               [&line, options] {
                 const auto& targets = options->targets;
                 if (options->serve && std::find(targets.begin(), targets.end(), "web") == targets.end())
                   throw WrongUsage("--serve: shows the page of --target web");
                 if (!options->program.empty() && targets.size() > 1)
                   throw WrongUsage("--program: is for one --target");
                 package(*options, line.tool());
                 return 0;
               });
  command.word("DIR", options->folder, "The game's folder; here when left out");
  command.word("--target", options->targets, "What it is for; may be given more than once")
      .one_of({"linux", "web", "windows"})
      .one_each_time()
      .value_name("TARGET")
      .shows_default("linux");
  command.word("-o,--output", options->output, "The folder to put it in").value_name("DIR").shows_default();
  command.word("--program", options->program, "Pack this program instead of building one").value_name("FILE");
  command.flag("--force", options->force, "Replace an archive that Vole did not make");
  command.flag("--serve", options->serve, "Show the page of --target web to browsers of this machine");
}
