// Vole built for another system than this one: kept in the user's cache folder, built once by `vole setup`.
#pragma once

#include <string>
#include <vector>

struct OtherSystem {
  std::string name;  // "web"
  // The words before the folders: the program that configures, and its options.
  std::vector<std::string> configure;
  std::string folder;  // in the cache: "headers", "build", and "ready" when it was built whole
  std::string source;  // Vole's own sources
};

// `tool` is this program: the sources are those it was installed with, or built from. Throws vole::Error when they are not
// there, or when there is no place for a cache.
OtherSystem other_system(const std::string& name, const std::string& tool);

// Where CMake finds the library for it. Throws vole::Error that says which command to run when it was not built yet; builds
// what changed in Vole's own sources since.
std::string ready_library(const OtherSystem& system);

// From now on compilers that are started find their parts.
void set_up_environment();
