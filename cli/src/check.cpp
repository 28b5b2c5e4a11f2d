#include <fmt/core.h>

#include <cstdio>
#include <nlohmann/json.hpp>

#include "checker.hpp"
#include "command.hpp"
#include "commands.hpp"
#include "vole/base/files.hpp"
#include "vole/base/names.hpp"

namespace {

using vole::Problem;

nlohmann::json to_json(const Finding& finding) {
  const Problem& problem = finding.problem;
  return {{"file", problem.where.file ? *problem.where.file : std::string()},
          {"line", problem.where.line},
          {"column", problem.where.column},
          {"severity", problem.severity == vole::Severity::error ? "error" : "warning"},
          {"message", problem.text},
          {"hint", problem.hint},
          {"times", problem.times},
          {"rule", finding.rule}};
}

struct CheckOptions {
  std::string folder = ".";
  bool json = false;
};

int check(const CheckOptions& options) {
  if (!vole::folder_exists(options.folder))
    throw vole::Error(vole::FilePosition::whole_file(options.folder), "no such folder");
  Checker checker(options.folder);
  checker.check_all();
  const std::vector<Finding> findings = checker.findings();
  if (options.json) {
    nlohmann::json found = nlohmann::json::array();
    for (const Finding& finding : findings) found.push_back(to_json(finding));
    fmt::print("{}\n", found.dump(2, ' ', false, nlohmann::json::error_handler_t::replace));
  } else {
    for (const Finding& finding : findings)
      fmt::print("{}{}\n", to_text(finding.problem),
                 finding.rule.empty() ? "" : fmt::format(" [{}]", finding.rule));
    const std::vector<std::string> names(checker.not_judged().begin(), checker.not_judged().end());
    const std::string not_judged = vole::joined(names, ", ");
    if (!not_judged.empty())
      fmt::print(
          "{}: not judged, since only the game knows these components: {}; let it write their schemas: "
          "GAME --schemas {}\n",
          options.folder, not_judged, vole::join_path(options.folder, "schemas"));
    if (findings.empty())
      fmt::print("{}: {} files, nothing wrong\n", options.folder, checker.files());
    else
      fmt::print("{}: {} problem{} in {} files\n", options.folder, findings.size(),
                 findings.size() == 1 ? "" : "s", checker.files());
  }
  return findings.empty() ? 0 : 1;
}

}  // namespace

void add_check(CommandLine& line) {
  const auto options = std::make_shared<CheckOptions>();
  Command command = line.add("check", "Read every file of a game and report everything that is wrong",
                             "  vole check\n"
                             "  vole check my-game --json",
                             [options] { return check(*options); });
  command.word("DIR", options->folder, "The game's folder; here when left out");
  command.flag("--json", options->json, "Print what was found as JSON");
}
