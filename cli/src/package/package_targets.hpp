// What each target makes of a game. One file a target.
#pragma once

#include <string>
#include <vector>

#include "archive.hpp"
#include "vole/app/project.hpp"

struct PackageOptions {
  std::string folder = ".";
  std::vector<std::string> targets{"linux"};  // or "web", "windows"
  std::string output = ".";                   // the folder for the package
  std::string program;                        // built already; empty: build it
  bool force = false;                         // replace archives that are no packages
  bool serve = false;                         // show the page of "web" until the program is ended
};

struct PackageWish {
  const PackageOptions& options;
  const vole::Project& project;
  const std::string& tool;  // this program
};

// Each returns the paths of what it made. Throws vole::Error.
std::vector<std::string> package_for_linux(const PackageWish& wish);
std::vector<std::string> package_for_web(const PackageWish& wish);
std::vector<std::string> package_for_windows(const PackageWish& wish);

// The files that the game needs to run, below `folder` of a package.
std::vector<PackedFile> packed_game(const vole::Project& project, const std::string& folder);
// "my-game-1.0-linux"
std::string package_name(const vole::Project& project, const std::string& target);
