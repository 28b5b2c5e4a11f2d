// A scene in which a player binds keys and buttons anew, ready to be used as it is:
//
//   game.scene<vole::ControlsScene>("controls");
//   stage.open("controls");                                         // over the scene that goes on afterwards
//   stage.leave_for("controls", vole::ControlsFor{.back = "title"});
//
// It is worked by arrow keys and Enter, or by a pad, whatever the game's own controls are: chosen is what stands in the list, and the
// next control that is pressed is bound to it, in place of what was on the same device. What it presses besides is told. Everything
// is drawn in the plain font.
#pragma once

#include <string>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/input/rebinding.hpp"
#include "vole/scene/scene.hpp"

namespace vole {

struct ControlsFor {
  std::string back;  // the scene that comes next, where it lies over none
};
template <class V>
void describe(V& v, ControlsFor& given) {
  v("back", given.back);
}

class ControlsScene : public Scene {
 public:
  using Argument = ControlsFor;

  void enter(Stage& stage) override;
  void tick(Stage& stage) override;
  void draw(Drawing& drawing) const override;

 private:
  void go_back(Stage& stage) const;
  void choose(Stage& stage, const std::string& control, const std::vector<Rebinding>& all);
  void bind(Stage& stage, const std::string& control, const std::vector<Rebinding>& all);
  std::string told_of(const Controls& controls, const std::vector<Rebinding>& all) const;

  std::string back_;
  int chosen_ = 0;
  bool waits_ = false;  // for what is to be bound
  // What was bound last. What else that control does is asked when it is drawn: what a player has set is no part of a state.
  int bound_ = -1;
  std::string bound_control_;

  template <class V>
  friend void describe(V& v, ControlsScene& scene) {
    v.state("back", scene.back_);
    v.state("chosen", scene.chosen_);
    v.state("waits", scene.waits_);
    v.state("bound", scene.bound_, within(-1, 100'000));
    v.state("bound_control", scene.bound_control_);
  }
};

}  // namespace vole
