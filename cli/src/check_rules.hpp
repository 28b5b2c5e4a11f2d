// What `vole check` finds beyond broken files: each rule has a name, under which a file may let it pass.
#pragma once

#include <map>
#include <set>
#include <string>
#include <vector>

#include "vole/app/project.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/base/error.hpp"

struct Finding {
  vole::Problem problem;
  std::string rule;  // empty for what is simply broken
};

// The rules that a file allows to be broken, and whether it says why.
class Allowances {
 public:
  Allowances(std::string root, const vole::Project& project, vole::Report& report);
  bool allowed(const std::string& file, const std::string& rule);

 private:
  using Rules = std::set<std::string>;
  Rules read(const std::string& file);
  void check_item(const vole::NamedItem<vole::Located<std::string>>& item);

  std::string root_;
  vole::Report& report_;
  std::map<std::string, Rules> said_by_project_;
  std::map<std::string, Rules> said_by_file_;
};

// The files below a game's folder that belong to it: all but hidden ones and what a build has made.
std::vector<std::string> files_of_game(const std::string& root);

// Runs all rules. `named` are the assets (as "sheet vole") that kinds and levels name.
std::vector<Finding> check_rules(vole::Catalog& catalog, const vole::Project& project,
                                 const std::set<std::string>& named, vole::Report& report);
