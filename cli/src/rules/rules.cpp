#include "rules.hpp"

#include "game_under_check.hpp"
#include "vole/base/files.hpp"

void find_unused_files(GameUnderCheck& game);
void find_odd_frames(GameUnderCheck& game);
void find_hidden_names(GameUnderCheck& game);
void find_letter_case(GameUnderCheck& game);
void find_what_is_over_limits(GameUnderCheck& game);
void find_odd_playing(GameUnderCheck& game);
void find_unbound_actions(GameUnderCheck& game);
void find_unbound_abilities(GameUnderCheck& game);
void find_odd_solids(GameUnderCheck& game);
void find_hollow_tiles(GameUnderCheck& game);
void find_missing_edges(GameUnderCheck& game);
void find_unasked_sensors(GameUnderCheck& game);
void find_unreached(GameUnderCheck& game);

const std::vector<Rule>& rules() {
  constexpr bool of_all = true;
  static const std::vector<Rule> all{
      {{"unused-file"}, find_unused_files},
      {{"uneven-frames", "empty-frame", "repeated-frame", "jumping-frame"}, find_odd_frames},
      {{"hidden-name"}, find_hidden_names},
      {{"case-clash", "wrong-case"}, find_letter_case},
      {{"over-limit"}, find_what_is_over_limits},
      {{"dead-rule", "unset-fact", "unplayed-clip"}, find_odd_playing},
      {{"unbound-action"}, find_unbound_actions},
      {{"unbound-ability"}, find_unbound_abilities},
      {{"starts-inside", "large-body", "tight-gap", "low-ceiling", "uneven-ground", "idle-category",
        "nobody-steers"},
       find_odd_solids,
       of_all},
      {{"hollow-tile"}, find_hollow_tiles, of_all},
      {{"missing-edges"}, find_missing_edges, of_all},
      {{"unasked-sensor"}, find_unasked_sensors, of_all},
      {{"unreached-thing", "unreached-ledge"}, find_unreached, of_all}};
  return all;
}

std::vector<std::string> names_of_rules() {
  std::vector<std::string> names;
  for (const Rule& rule : rules()) names.insert(names.end(), rule.names.begin(), rule.names.end());
  return names;
}

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
  for (const Rule& rule : rules()) {
    if (rule.of_all && !all_read) continue;
    game.under_way = &rule;
    rule.find(game);
  }
  return std::move(game.findings);
}
