// Building with CMake, for packages.
#pragma once

#include <string>
#include <vector>

// Runs a program and waits. Throws vole::Error with the command when it fails; what it printed is printed then.
void must_run(const std::vector<std::string>& words, const std::string& what);

// Has CMake configure a folder to build in: by `words`, "cmake" and its options. Takes ninja where it is installed.
void must_configure(std::vector<std::string> words, const std::string& source, const std::string& build,
                    const std::string& what);

// Builds a folder that CMake has configured, with a compiler for each of the machine's processors and no more.
void must_build(const std::string& folder, const std::string& what,
                const std::vector<std::string>& more = {});

// Where CMake finds the Vole that this program belongs to (its vole_DIR); empty when it will find it by itself.
std::string vole_cmake_folder(const std::string& tool);

struct BuildWish {
  std::string folder;                  // the game's
  std::string id;                      // the target
  std::string output;                  // the folder to build in
  std::vector<std::string> configure;  // the words that configure, without folders: "cmake" and options
  std::string program;                 // the file that comes of it, in the folder
};
// Builds the game's target and returns the program's path.
std::string build_game(const BuildWish& wish);
