#include <string>

#include "scenes.hpp"
#include "village.hpp"

namespace milk {

void End::enter(vole::Stage& stage) {
  morning_ = stage.argument<Morning>();
  enter_village(stage, 0);
  brighten(stage, 0);
  stage.remove(stage.first("float"));
}

void End::tick(vole::Stage& stage) {
  if (stage.input().pressed("start") || stage.input().pressed("pause"))
    stage
        .leave_for<vole::HighScoresScene>(
            {.points = morning_.left, .unit = "doorsteps", .back = "title", .title = "The best mornings"})
        .over_last_moment();
}

void End::draw(vole::Drawing& drawing) const {
  using vole::Vec2;
  draw_board(drawing);
  const Vec2 middle{static_cast<float>(drawing.canvas().x) / 2, 72};
  const bool all = morning_.round > rounds;
  const char* const what = all                     ? "Every door has its milk"
                           : morning_.bottles <= 0 ? "Nothing left but glass"
                                                   : "The village is awake";
  drawing.text(
      "letters", what, middle,
      {.anchor = vole::Anchor::centre, .colour = colours::cream, .scale = 2, .outline = colours::bark});
  drawing.text(
      "letters",
      std::to_string(morning_.left) + (morning_.left == 1 ? " doorstep served" : " doorsteps served"),
      middle + Vec2{0, 24},
      {.anchor = vole::Anchor::centre, .colour = colours::straw, .outline = colours::bark});
  drawing.text("letters", "press Enter", middle + Vec2{0, 46},
               {.anchor = vole::Anchor::centre, .colour = colours::gold, .outline = colours::bark});
}

}  // namespace milk
