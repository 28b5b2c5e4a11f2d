#include "check_rules.hpp"

#include "rules/game_under_check.hpp"
#include "vole/base/files.hpp"

std::vector<std::string> files_of_game(const std::string& root) {
  std::vector<std::string> files = vole::list_files(root);
  std::erase_if(files, [](const std::string& file) {
    return file.starts_with("build") && file.find('/') != std::string::npos;
  });
  return files;
}

std::vector<Finding> check_rules(vole::Catalog& catalog, const vole::Project& project,
                                 const std::set<std::string>& named, bool all_read, const vole::Kinds& kinds,
                                 vole::Report& report) {
  GameUnderCheck game(catalog, project, named, all_read, kinds, report);
  find_unused_files(game);
  find_odd_frames(game);
  find_hidden_names(game);
  find_letter_case(game);
  find_what_is_over_limits(game);
  find_odd_playing(game);
  find_unbound_actions(game);
  if (all_read) {
    find_odd_solids(game, kinds);
    find_hollow_tiles(game);
    find_missing_edges(game);
    find_unasked_sensors(game);
    find_unreached(game);
  }
  return std::move(game.findings);
}
