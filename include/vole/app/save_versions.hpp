// What a game saves changes with the game. Saves of older versions are brought up to the present one in steps that the game writes, from each
// version to the next:
//
//   game.saves_are(3);
//   game.save_step(1, [](vole::TomlValue& holds) { vole::rename_saved(holds, "values.purse.money", "coins"); });
//   game.save_step(2, [](vole::TomlValue& holds) { vole::forget_saved(holds, "values.lives"); });
//
// A step sees what a save holds as TOML: [values], and with scenes [[scenes]] and [state]; of a value between runs its table below [values]
// alone. A version without a step has only added what is made when it is missing.
#pragma once

#include <functional>
#include <string_view>
#include <vector>

namespace vole {

class TomlValue;

using SaveStep = std::function<void(TomlValue& holds)>;

class SaveVersions {
 public:
  static constexpr int most = 1000;

  // Throws std::logic_error for a number that is not from 1 to 1000.
  void are(int version);
  int now() const { return now_; }
  // Throws std::logic_error for a version that is none.
  void add(int from, SaveStep step);
  // Throws Error, in one sentence, for what a newer version of the game has saved, and what a step throws.
  void bring_up(TomlValue& holds, int from) const;

 private:
  struct Step {
    int from = 1;
    SaveStep run;
  };
  int now_ = 1;
  std::vector<Step> steps_;
};

// For steps; `path` is names with points between them, as "values.purse.money". What is not there stays so.
TomlValue* find_saved(TomlValue& holds, std::string_view path);
void rename_saved(TomlValue& holds, std::string_view path, std::string_view key);
void forget_saved(TomlValue& holds, std::string_view path);

}  // namespace vole
