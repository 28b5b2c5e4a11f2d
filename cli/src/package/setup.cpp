#include <fmt/core.h>
#include <unistd.h>

#include <filesystem>

#include "build.hpp"
#include "command.hpp"
#include "commands.hpp"
#include "header_libraries.hpp"
#include "other_system.hpp"
#include "process.hpp"
#include "vole/base/error.hpp"
#include "vole/base/files.hpp"

namespace {

namespace fs = std::filesystem;
using vole::Error;
using vole::FilePosition;

bool is_there(const Needed& needed) {
  return needed.what.starts_with('/') ? vole::folder_exists(needed.what) : program_exists(needed.what);
}

std::vector<std::string> missing_packages(const OtherSystem& system) {
  std::vector<Needed> needs = system.needs;
  needs.push_back({"cmake", "cmake"});
  if (!program_exists("make")) needs.push_back({"ninja", "ninja-build"});  // one of the two
  for (const HeaderLibrary& library : header_libraries)
    needs.push_back({fmt::format("/usr/include/{}", library.folder), std::string(library.package)});
  std::vector<std::string> packages;
  for (const Needed& needed : needs)
    if (!is_there(needed)) packages.push_back(needed.package);
  return packages;
}

void install(const std::vector<std::string>& packages) {
  if (packages.empty()) return;
  std::string list;
  for (const std::string& package : packages) list += " " + package;
  if (!program_exists("apt-get"))
    throw Error(FilePosition{}, fmt::format("these are missing here:{}", list),
                "install them, and run this again");
  fmt::print(stderr, "installing{} ...\n", list);
  std::vector<std::string> words{"apt-get", "install", "-y", "-qq", "--no-install-recommends"};
  if (geteuid() != 0) words.insert(words.begin(), "sudo");
  words.insert(words.end(), packages.begin(), packages.end());
  must_run(words, "installing packages");
}

// A folder of the headers alone: the system's other headers are not for this target.
void link_headers(const std::string& folder) try {
  fs::create_directories(folder);
  for (const HeaderLibrary& library : header_libraries) {
    const fs::path link = fs::path(folder) / library.folder;
    if (fs::exists(link)) continue;
    fs::remove(link);
    fs::create_directory_symlink(fs::path("/usr/include") / library.folder, link);
  }
} catch (const fs::filesystem_error& error) {
  throw Error(FilePosition::whole_file(folder), "cannot be made: " + vole::to_text(error.code()),
              "set XDG_CACHE_HOME to a folder that may be written");
}

void build_library(const OtherSystem& system, const std::vector<std::string>& more) {
  const std::string headers = vole::join_path(system.folder, "headers"),
                    build = vole::join_path(system.folder, "build");
  link_headers(headers);
  std::vector<std::string> words = system.configure;
  words.insert(words.end(), {"-DVOLE_HEADERS=" + headers, "-DVOLE_TOOL=OFF", "-DVOLE_EXAMPLES=OFF",
                             "-DVOLE_TESTS=OFF", "-DCMAKE_UNITY_BUILD=ON"});
  words.insert(words.end(), more.begin(), more.end());
  fmt::print(stderr, "building Vole for \"{}\"; this takes some minutes, once ...\n", system.name);
  must_configure(words, system.source, build, "configuring the library");
  must_build(build, "building the library");
}

}  // namespace

void set_up(const OtherSystem& system) {
  install(missing_packages(system));
  const std::string ready = vole::join_path(system.folder, "ready");
  std::error_code ignored;  // most often there is none
  fs::remove(ready, ignored);
  const std::vector<std::string> words = system.prepare ? system.prepare(system) : std::vector<std::string>{};
  if (!system.has_library) build_library(system, words);
  vole::write_whole(ready, std::string_view("whole\n"));
}

void add_setup(CommandLine& line) {
  const auto target = std::make_shared<std::string>();
  Command command = line.add("setup", "Install and build, once, what packages need",
                             "  vole setup linux\n"
                             "  vole setup web\n"
                             "  vole setup windows",
                             [&line, target] {
                               const OtherSystem system = other_system(*target, line.tool());
                               set_up(system);
                               fmt::print("{}\n", system.folder);
                               return 0;
                             });
  command.word("TARGET", *target, "The system").one_of({"linux", "web", "windows"}).needed();
}
