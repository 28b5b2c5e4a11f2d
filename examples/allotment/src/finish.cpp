#include <algorithm>

#include "scenes.hpp"

void Finish::enter(vole::Stage& stage) {
  stage.load_level("cover");
  harvest_ = stage.argument<Harvest>();
}

void Finish::tick(vole::Stage& stage) {
  if (!stage.input().pressed("start")) return;
  const int seconds = static_cast<int>(harvest_.ticks / stage.ticks_per_second());
  const int points = harvest_.gathered * 10 + std::max(300 - seconds, 0);
  stage.leave_for<vole::HighScoresScene>({.points = points, .back = "title", .title = "The best harvests"})
      .over_last_moment();
}

void Finish::draw(vole::Drawing& drawing) const {
  const vole::Vec2 middle{static_cast<float>(drawing.canvas().x) / 2, 36};
  const vole::TextStyle centred{.anchor = vole::Anchor::centre};
  const bool all = harvest_.gathered == harvest_.planted;
  drawing.text("letters", all ? "Every bulb is in the shed!" : "Safe in the shed", middle, centred);
  drawing.text("letters",
               std::to_string(harvest_.gathered) + " of " + std::to_string(harvest_.planted) + " bulbs in " +
                   time_text(harvest_.ticks, drawing.stage().ticks_per_second()),
               middle + vole::Vec2{0, 18}, centred);
  drawing.text("letters", "press Enter", middle + vole::Vec2{0, 48}, centred);
}
