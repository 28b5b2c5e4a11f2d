// What a game's files say may break a rule of `vole check`, and why.
#pragma once

#include <map>
#include <set>
#include <string>

#include "vole/app/project.hpp"

class Allowances {
 public:
  // A rule that is none, and a reason that is missing, go to the report.
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
