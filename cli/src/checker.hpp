// Walks through a game's files: each is read, and judged beside the others (judges.hpp); then come the rules (rules/).
#pragma once

#include <memory>
#include <set>
#include <string>
#include <vector>

#include "kinds_alone.hpp"
#include "own_components.hpp"
#include "rules/rules.hpp"
#include "rules/sources.hpp"
#include "vole/app/project.hpp"
#include "vole/input/controls.hpp"
#include "vole/level/kinds.hpp"

class StagedGame;

// Each thing that is wrong goes to the report, and the rest goes on.
class Checker {
 public:
  explicit Checker(const std::string& root);
  ~Checker();
  Checker(const Checker&) = delete;
  Checker& operator=(const Checker&) = delete;

  // `with_rules`: also what is not broken and probably not meant (rules/).
  void check_all(bool with_rules = true);
  // Sorted by place, each once: a broken picture is met again by every sheet that uses it.
  std::vector<Finding> findings() const;
  int files() const { return files_; }
  // Components that only the game knows, which has not said in schemas what they are: nothing was said of them.
  const std::set<std::string>& not_judged() const { return not_judged_; }

 private:
  // Whether nothing was wrong.
  template <class Work>
  bool attempt(const Work& work);
  void check_names_of_files();
  void check_project();
  void read_what_can_be(const std::string& file);
  void check_controls();
  template <class T>
  void check_assets();
  void check_fonts();
  void check_tiles();
  void check_groups();
  void check_kinds();
  bool check_levels();
  void check_level(const vole::Level& level);
  void check_pieces(const std::string& name, const vole::Level& level);
  void check_places(const vole::Level& level, const vole::Level* piece);
  void check_thing(const std::string& kind, const vole::TomlValue& thing, const vole::Level* level,
                   const vole::Level* piece = nullptr);
  void judge_unknown_components(const vole::TomlValue& thing);
  void play_level(const std::string& name);
  void check_spawned(const std::vector<vole::Asset<vole::Level>>& levels);
  void check_recordings();

  std::string root_;
  vole::Project project_;
  std::set<std::string> named_;  // assets that files name, as "sheet vole"
  std::vector<Finding> findings_;
  vole::Catalog catalog_;
  std::unique_ptr<StagedGame> staged_game_;  // where levels are played
  vole::Controls controls_;
  vole::Kinds kinds_;
  KindsAlone alone_{catalog_, kinds_};
  std::unique_ptr<OwnComponents> own_components_;
  vole::Report report_;
  int files_ = 0;
  std::set<std::string> not_judged_;
  std::unique_ptr<Sources> sources_;  // once they are asked
  // What could not be read is not judged by.
  bool project_read_ = false, controls_read_ = false, kinds_read_ = false;
};
