// What all rules of `vole check` look at, and where they put what they find.
#pragma once

#include <fmt/core.h>

#include <functional>
#include <map>
#include <set>
#include <string>
#include <vector>

#include "allowances.hpp"
#include "kinds_alone.hpp"
#include "rules.hpp"
#include "sources.hpp"
#include "vole/asset/font.hpp"
#include "vole/level/kinds.hpp"
#include "vole/level/level.hpp"

struct GameUnderCheck {
  vole::Catalog& catalog;
  const vole::Project& project;
  const std::set<std::string>& named;  // the assets (as "sheet vole") that kinds and levels name
  bool all_read;                       // what names assets
  const vole::Kinds& kinds;            // as far as they could be read
  KindsAlone kinds_alone;
  std::vector<std::string> files;
  Sources sources;
  Allowances allowances;
  std::vector<Finding> findings;
  const Rule* under_way = nullptr;

  GameUnderCheck(vole::Catalog& its_catalog, const vole::Project& its_project,
                 const std::set<std::string>& named_assets, bool all_was_read, const vole::Kinds& its_kinds,
                 vole::Report& report);

  // Unless the file may break this rule, which is one of the names of what is looking. Without a position the finding is about the whole file.
  void add(const std::string& rule, const std::string& file, std::string text, std::string hint = {},
           const vole::FilePosition& where = {});
  // The path below the game's folder.
  std::string relative(const std::string& path) const;
  bool exists(const std::string& file) const;
  // Calls visit(sheet, its file) for each sheet that can be loaded.
  void each_sheet(const std::function<void(const vole::Sheet&, const std::string&)>& visit);

  // Adds the files that an asset is made from.
  template <class T>
  void add_files_of(const std::string& name, std::set<std::string>& all) {
    if (!catalog.has<T>(name)) return;
    try {
      for (const std::string& file : catalog.files_of(catalog.get<T>(name))) all.insert(relative(file));
    } catch (const vole::Error&) {
      // Broken, and reported so; whether it is used does not matter then.
    }
  }

 private:
  std::map<std::string, std::size_t> found_;  // findings by file, rule and text
};
