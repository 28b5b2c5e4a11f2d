#include "other_system.hpp"

#include <fmt/format.h>

#include <cstdlib>

#include "build.hpp"
#include "vole/base/error.hpp"
#include "vole/base/files.hpp"
#include "vole/base/hash.hpp"
#include "vole/version.hpp"

namespace {

std::string variable(const char* name) {
  const char* const value = std::getenv(name);
  return value ? value : "";
}

// As the XDG Base Directory Specification has it.
std::string cache_folder() {
  std::string folder = variable("XDG_CACHE_HOME");
  if (folder.empty() && !variable("HOME").empty()) folder = vole::join_path(variable("HOME"), ".cache");
  if (folder.empty())
    throw vole::Error(vole::FilePosition{}, "there is no folder for what is built once",
                      "set XDG_CACHE_HOME or HOME");
  return vole::join_path(folder, "vole");
}

}  // namespace

OtherSystem other_system(const std::string& name) {
  OtherSystem system{
      name, {"emcmake", "cmake", "-DCMAKE_BUILD_TYPE=Release", "-DCMAKE_CXX_FLAGS_RELEASE=-O2 -DNDEBUG"}, {}};
  vole::Hash hash;
  for (const std::string& word : system.configure) hash.add(std::string_view(word));
  system.folder =
      vole::join_path(cache_folder(), fmt::format("{}-{}-{:08x}", name, vole::version, hash.value() >> 32));
  return system;
}

std::string ready_library(const OtherSystem& system) {
  if (!vole::file_exists(vole::join_path(system.folder, "ready")))
    throw vole::Error(vole::FilePosition{},
                      fmt::format("Vole is not built for \"{}\" on this machine yet", system.name),
                      fmt::format("run `vole setup {}` once", system.name));
  std::string build = vole::join_path(system.folder, "build");
  set_environment_for(system);
  must_run({"cmake", "--build", build, "--parallel"}, "building the library");
  return build;
}

void set_environment_for(const OtherSystem&) {
  // Debian keeps the parser that emscripten needs where its own node looks, and other nodes do not.
  const std::string path = variable("NODE_PATH");
  constexpr const char* debian = "/usr/share/nodejs";
  if (path.find(debian) == std::string::npos && vole::folder_exists(debian))
    setenv("NODE_PATH", (path.empty() ? std::string(debian) : fmt::format("{}:{}", debian, path)).c_str(), 1);
}
