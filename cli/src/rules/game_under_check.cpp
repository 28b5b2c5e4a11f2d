#include "game_under_check.hpp"

#include <algorithm>
#include <stdexcept>

#include "vole/base/files.hpp"

GameUnderCheck::GameUnderCheck(vole::Catalog& its_catalog, const vole::Project& its_project,
                               const std::set<std::string>& named_assets, bool all_was_read,
                               const vole::Kinds& its_kinds, vole::Report& report)
    : catalog(its_catalog),
      project(its_project),
      named(named_assets),
      all_read(all_was_read),
      kinds(its_kinds),
      kinds_alone(its_catalog, its_kinds),
      files(files_of_game(its_catalog.root())),
      sources(its_catalog.root(), files),
      allowances(its_catalog.root(), its_project, report) {}

void GameUnderCheck::add(const std::string& rule, const std::string& file, std::string text, std::string hint,
                         const vole::FilePosition& where) {
  if (std::find(under_way->names.begin(), under_way->names.end(), rule) == under_way->names.end())
    throw std::logic_error("a rule of vole check that is not in its table: " + rule);
  if (allowances.allowed(file, rule)) return;
  Finding finding;
  finding.rule = rule;
  finding.problem.where =
      where.file ? where : vole::FilePosition::whole_file(vole::join_path(catalog.root(), file));
  finding.problem.severity = vole::Severity::warning;
  finding.problem.text = std::move(text);
  finding.problem.hint = std::move(hint);
  // Each once, with its first places.
  const auto [known, is_new] =
      found_.emplace(fmt::format("{}\n{}\n{}", file, rule, finding.problem.text), findings.size());
  if (is_new) return findings.push_back(std::move(finding));
  vole::Problem& first = findings[known->second].problem;
  constexpr std::size_t most_also = 3;
  ++first.times;
  if (first.also.size() < most_also) first.also.push_back(finding.problem.where);
}

std::string GameUnderCheck::relative(const std::string& path) const {
  return path.starts_with(catalog.root() + "/") ? path.substr(catalog.root().size() + 1) : path;
}

bool GameUnderCheck::exists(const std::string& file) const {
  return std::binary_search(files.begin(), files.end(), file);
}

void GameUnderCheck::each_sheet(const std::function<void(const vole::Sheet&, const std::string&)>& visit) {
  for (const std::string& name : catalog.loose_names<vole::Sheet>()) {
    try {
      const auto sheet = catalog.get<vole::Sheet>(name);
      const std::string toml = "assets/" + name + ".sheet.toml";
      visit(*sheet,
            vole::file_exists(vole::join_path(catalog.root(), toml)) ? toml : "assets/" + name + ".png");
    } catch (const vole::Error&) {
    }
  }
}
