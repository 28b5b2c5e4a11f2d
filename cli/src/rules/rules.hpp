// What `vole check` finds beyond broken files: each rule has a name, under which a file may let it pass.
#pragma once

#include <set>
#include <string>
#include <string_view>
#include <vector>

#include "vole/app/project.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/base/error.hpp"
#include "vole/level/kinds.hpp"

struct GameUnderCheck;

// What looks for something, under the names that its findings have. A new one: a file of its own, and a row in rules.cpp.
struct Rule {
  std::vector<std::string_view> names;
  void (*find)(GameUnderCheck& game);
  bool of_all = false;  // it judges by what all files say together: only where all of them could be read
};
const std::vector<Rule>& rules();
std::vector<std::string> names_of_rules();

struct Finding {
  vole::Problem problem;
  std::string rule;  // empty for what is simply broken
};

// The files below a game's folder that belong to it: all but hidden ones and what a build has made.
std::vector<std::string> files_of_game(const std::string& root);

// Runs all rules. `named` are the assets (as "sheet vole") that kinds and levels name; unless all of those could be read,
// nothing is called unused.
std::vector<Finding> check_rules(vole::Catalog& catalog, const vole::Project& project,
                                 const std::set<std::string>& named, bool all_read, const vole::Kinds& kinds,
                                 vole::Report& report);
