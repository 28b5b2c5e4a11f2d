// A scene in which a player changes settings: the fields of a described struct, which is a value of the game (values.hpp).
//
//   enum class Pace { gentle, brisk };
//   struct Wishes { bool counter = true; Pace pace = Pace::brisk; float shake = 1; };     // described, shake within(0, 1)
//   game.value<Wishes>("wishes", vole::Lasts::between_runs);
//   game.scene<vole::SettingsOf<Wishes>>("settings", {.keys = "keys"});
//   stage.open("settings");
//
// Each field is a line: a switch, a choice, or a number within its limits. What is changed counts at once. It is worked by arrow keys and
// Enter, or by a pad, whatever the game's own controls are.
#pragma once

#include <string>

#include "vole/scene/scene.hpp"
#include "vole/scene/stage.hpp"

namespace vole {

struct SettingsFor {
  std::string back = {};  // the scene that comes next, where it lies over none
  std::string keys =
      {};  // the scene in which keys are bound (controls_scene.hpp); none: there is no such line
  std::string title = "Settings";
};
template <class V>
void describe(V& v, SettingsFor& given) {
  v("back", given.back);
  v("keys", given.keys);
  v("title", given.title);
}

class SettingsScene : public Scene {
 public:
  using Argument = SettingsFor;

  void enter(Stage& stage) override;
  void tick(Stage& stage) override;
  void draw(Drawing& drawing) const override;

 protected:
  virtual const DescribedType& type() const = 0;
  virtual void* settings(Stage& stage) const = 0;
  virtual const void* settings(const Stage& stage) const = 0;

 private:
  int lines(const Stage& stage) const;
  void choose(Stage& stage, int row, int by);

  int chosen_ = 0;

  template <class V>
  friend void describe(V& v, SettingsScene& scene) {
    v.state("chosen", scene.chosen_, within(0, 1000));
  }
};

template <class Settings>
class SettingsOf final : public SettingsScene {
 protected:
  const DescribedType& type() const override { return described_type<Settings>(); }
  void* settings(Stage& stage) const override { return &stage.value<Settings>(); }
  const void* settings(const Stage& stage) const override { return &stage.value<Settings>(); }
};

}  // namespace vole
