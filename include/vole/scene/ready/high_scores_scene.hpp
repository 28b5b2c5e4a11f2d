// A scene that shows the high scores of a game (high_scores.hpp), and asks for a name where new points are among them:
//
//   stage.leave_for<vole::HighScoresScene>({.points = metres, .unit = "m", .back = "title"});
//   stage.open<vole::HighScoresScene>();                            // only to look at, over a scene that goes on afterwards
//
// A name is typed, or chosen letter by letter: up and down change a letter, left and right go to another, Enter or the pad's south button
// ends it. Whatever the game's own controls are. It hands nothing back.
#pragma once

#include <cstdint>
#include <string>

#include "vole/base/describe.hpp"
#include "vole/scene/scene.hpp"

namespace vole {

struct HighScoresFor {
  std::int64_t points = 0;  // that were reached just now; 0: none
  std::string unit = {};    // shown after points
  std::string back = {};    // the scene that comes next, where it lies over none
  std::string title = "High scores";
};
template <class V>
void describe(V& v, HighScoresFor& given) {
  v("points", given.points);
  v("unit", given.unit);
  v("back", given.back);
  v("title", given.title);
}

class HighScoresScene : public Scene {
 public:
  using Argument = HighScoresFor;

  void enter(Stage& stage) override;
  void tick(Stage& stage) override;
  void draw(Drawing& drawing) const override;

 private:
  // What a control does to the name.
  void spell(Stage& stage, const std::string& control);
  void end_name(Stage& stage);

  bool asks_ = false;  // for a name
  std::string name_;
  int letter_ = 0;  // that is changed, by its place
  int place_ = -1;  // of what was added
  int ticks_ = 0;

  template <class V>
  friend void describe(V& v, HighScoresScene& scene) {
    v.state("asks", scene.asks_);
    v.state("name", scene.name_);
    v.state("letter", scene.letter_, within(0, 100));
    v.state("place", scene.place_, within(-1, 100));
    v.state("ticks", scene.ticks_, within(0, 1e9));
  }
};

}  // namespace vole
