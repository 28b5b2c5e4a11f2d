// What packages for a system need besides what is installed: kept in the user's cache folder, built once by `vole setup`. For
// another system than this one that is Vole itself too. What differs between systems stands in other_linux.cpp, other_web.cpp
// and other_windows.cpp.
#pragma once

#include <string>
#include <vector>

#include "package_targets.hpp"

// A program or a file that must be there, and the Debian package that it comes in.
struct Needed {
  std::string what;  // the name of a program, or a path
  std::string package;
};

struct OtherSystem {
  std::string name;  // "web"
  // The words before the folders: the program that configures, and its options.
  std::vector<std::string> configure;
  std::vector<Needed> needs;
  // Builds what the library needs there into the folder, and returns words that tell the library where; may be nullptr.
  std::vector<std::string> (*prepare)(const OtherSystem& system) = nullptr;
  bool has_library = false;  // Vole is built for it already
  std::string folder{};      // in the cache: "headers", "build", and "ready" when the library was built whole
  std::string source{};      // Vole's own sources
};

// `tool` is this program: Vole's sources are those it was installed with, or built from. Throws vole::Error when they are
// not there, or when there is no place for a cache.
OtherSystem other_system(const std::string& name, const std::string& tool);

// Its two parts; `source`: Vole's own.
OtherSystem linux_system();
OtherSystem web_system();
OtherSystem windows_system(const std::string& source);

bool is_ready(const OtherSystem& system);
// Builds what is missing, and installs what that takes.
void set_up(const OtherSystem& system);

// Throws vole::Error that says which command to run when the library was not built yet.
void expect_ready(const OtherSystem& system);

// Builds the game in its folder build/NAME, after what changed in Vole's own sources, and returns the path of the program
// that came of it. `more`: further words that configure.
std::string build_for(const OtherSystem& system, const PackageWish& wish, const std::string& program,
                      const std::vector<std::string>& more = {});
