#include "allowances.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <vector>

#include "rules.hpp"
#include "vole/base/check_notes.hpp"
#include "vole/base/files.hpp"
#include "vole/base/names.hpp"
#include "vole/base/reading.hpp"

Allowances::Allowances(std::string root, const vole::Project& project, vole::Report& report)
    : root_(std::move(root)), report_(report) {
  for (const auto& item : project.check.allow) {
    check_item(item);
    said_by_project_["game.toml"].insert(item.name);
  }
  for (const auto& file : project.check.files) {
    if (!vole::file_exists(vole::join_path(root_, file.name)))
      report_.error(file.where, fmt::format("no file \"{}\"", file.name));
    for (const auto& item : file.value) {
      check_item(item);
      said_by_project_[file.name].insert(item.name);
    }
  }
}

void Allowances::check_item(const vole::NamedItem<vole::Located<std::string>>& item) {
  const std::vector<std::string> known = names_of_rules();
  if (std::find(known.begin(), known.end(), item.name) == known.end())
    report_.error(item.where, fmt::format("no rule \"{}\"", item.name), vole::did_you_mean(item.name, known));
  if (item.value.value.empty())
    report_.error(item.value.where, fmt::format("the reason why \"{}\" is allowed is missing", item.name),
                  "write it for the next reader");
}

Allowances::Rules Allowances::read(const std::string& file) {
  Rules rules;
  const std::string path = vole::join_path(root_, file);
  if (!file.ends_with(".toml") || !vole::file_exists(path)) return rules;
  try {
    const vole::TomlValue root = vole::read_toml(path);
    const vole::TomlValue* written = root.find("check");
    if (!written) return rules;
    vole::CheckNotes notes;
    vole::Report already_told;
    vole::read(*written, notes, already_told);
    for (const auto& item : notes.allow) {
      check_item(item);
      rules.insert(item.name);
    }
  } catch (const vole::Error&) {
    // Reported where the file is loaded.
  }
  return rules;
}

bool Allowances::allowed(const std::string& file, const std::string& rule) {
  const auto found = said_by_project_.find(file);
  if (found != said_by_project_.end() && found->second.count(rule) != 0) return true;
  if (file == "game.toml") return false;
  const auto [own, is_new] = said_by_file_.try_emplace(file);
  if (is_new) own->second = read(file);
  return own->second.count(rule) != 0;
}
