// case-clash and wrong-case: names that are not the same on every system.
#include <map>

#include "game_under_check.hpp"
#include "vole/base/files.hpp"
#include "vole/base/names.hpp"

namespace {

void find_case_clashes(GameUnderCheck& game) {
  std::map<std::string, std::string> seen;
  for (const std::string& file : game.files) {
    const auto [found, is_new] = seen.emplace(vole::lower_case(file), file);
    if (!is_new)
      game.add("case-clash", file, fmt::format("differs from {} by letter case only", found->second),
               "some systems take them for one file");
  }
}

// Where letter case does not count a wrong one is found all the same; where it counts, the game then fails.
void find_wrong_cases(GameUnderCheck& game) {
  std::map<std::string, std::string> by_lower;
  for (const std::string& file : game.files) by_lower.emplace(vole::lower_case(file), file);
  const auto look = [&]<class T>(T*) {
    for (const std::string& name : game.catalog.loose_names<T>()) {
      std::set<std::string> used;
      game.add_files_of<T>(name, used);
      for (const std::string& file : used) {
        const auto found = by_lower.find(vole::lower_case(file));
        if (!game.exists(file) && found != by_lower.end())
          game.add("wrong-case", file, fmt::format("is named so, but the file is {}", found->second),
                   "on other systems it will not be found");
      }
    }
  };
  look(static_cast<vole::Sheet*>(nullptr));
  look(static_cast<vole::Tileset*>(nullptr));
  look(static_cast<vole::Level*>(nullptr));
}

}  // namespace

void find_letter_case(GameUnderCheck& game) {
  find_case_clashes(game);
  find_wrong_cases(game);
}
