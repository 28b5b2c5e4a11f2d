#include "other_system.hpp"

#include <fmt/core.h>

#include <cstdlib>
#include <filesystem>

#include "build.hpp"
#include "vole/base/error.hpp"
#include "vole/base/files.hpp"
#include "vole/base/hash.hpp"
#include "vole/base/program.hpp"
#include "vole/version.hpp"

namespace {

namespace fs = std::filesystem;
using vole::Error;
using vole::FilePosition;

// As the XDG Base Directory Specification has it.
std::string cache_folder() {
  std::string folder = vole::environment("XDG_CACHE_HOME");
  if (folder.empty() && !vole::environment("HOME").empty())
    folder = vole::join_path(vole::environment("HOME"), ".cache");
  if (folder.empty())
    throw vole::Error(vole::FilePosition{}, "there is no folder for what is built once",
                      "set XDG_CACHE_HOME or HOME");
  return vole::join_path(folder, "vole");
}

// Vole's own sources: beside the installed program, or those that its build folder was configured from.
std::string source_folder(const std::string& tool) {
  const std::string bin = vole::folder_of(tool);
  std::string installed = vole::join_path(bin, "../share/vole/source");
  if (vole::file_exists(vole::join_path(installed, "CMakeLists.txt")))
    return fs::weakly_canonical(installed).generic_string();
  const std::string cache = vole::join_path(bin, "../CMakeCache.txt");
  if (vole::file_exists(cache)) {
    const std::string text = vole::read_text(cache, std::size_t{16} << 20);
    constexpr std::string_view key = "CMAKE_HOME_DIRECTORY:INTERNAL=";
    if (const std::size_t at = text.find(key); at != std::string::npos)
      return text.substr(at + key.size(), text.find('\n', at) - at - key.size());
  }
  throw Error(FilePosition::whole_file(installed), "Vole's sources are not there", "install Vole as a whole");
}

}  // namespace

OtherSystem other_system(const std::string& name, const std::string& tool) {
  const std::string source = source_folder(tool);
  OtherSystem system = name == "web"       ? web_system()
                       : name == "windows" ? windows_system(source)
                                           : linux_system();
  system.source = source;
  vole::Hash hash;
  hash.add(std::string_view(system.source));
  hash.add(std::string_view(cache_folder()));  // what was built knows where it is
  for (const std::string& word : system.configure) hash.add(std::string_view(word));
  system.folder =
      vole::join_path(cache_folder(), fmt::format("{}-{}-{:08x}", name, vole::version, hash.value() >> 32));
  return system;
}

bool is_ready(const OtherSystem& system) {
  return vole::file_exists(vole::join_path(system.folder, "ready"));
}

void expect_ready(const OtherSystem& system) {
  if (!is_ready(system))
    throw Error(FilePosition{}, fmt::format("Vole is not built for \"{}\" on this machine yet", system.name),
                fmt::format("run `vole setup {}` once", system.name));
}

std::string build_for(const OtherSystem& system, const PackageWish& wish, const std::string& program,
                      const std::vector<std::string>& more) {
  expect_ready(system);
  const std::string library = vole::join_path(system.folder, "build");
  must_build(library, "building the library");
  std::vector<std::string> configure = system.configure;
  configure.push_back("-Dvole_DIR=" + library);
  configure.push_back("-DVOLE_TOOL_PROGRAM=" + wish.tool);
  configure.insert(configure.end(), more.begin(), more.end());
  return build_game({wish.options.folder, wish.project.id.value,
                     vole::join_path(wish.options.folder, "build/" + system.name), std::move(configure),
                     program});
}
