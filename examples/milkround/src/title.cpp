#include "scenes.hpp"
#include "village.hpp"

namespace milk {

void Title::enter(vole::Stage& stage) {
  enter_village(stage, 3);
  brighten(stage, 1);
  stage.remove(stage.first("float"));
}

void Title::tick(vole::Stage& stage) {
  const vole::Transition opening = vole::wipe(vole::Direction::right, 0.5f);
  if (stage.input().pressed("start")) stage.leave_for<Round>(Morning{.players = 1}).with(opening);
  if (stage.input().pressed("settings")) stage.open("settings");
  if (stage.input().pressed("start", 2)) stage.leave_for<Round>(Morning{.players = 2}).with(opening);
}

void Title::draw(vole::Drawing& drawing) const {
  using vole::Vec2;
  draw_board(drawing);
  const Vec2 middle{static_cast<float>(drawing.canvas().x) / 2, 62};
  drawing.text(
      "letters", "THE MILK ROUND", middle,
      {.anchor = vole::Anchor::centre, .colour = colours::cream, .scale = 2, .outline = colours::bark});
  drawing.text("letters", "Full bottles at every door before the village wakes", middle + Vec2{0, 22},
               {.anchor = vole::Anchor::centre, .colour = colours::straw, .outline = colours::bark});
  if (drawing.stage().ticks() / 40 % 2 == 0)
    drawing.text("letters", "Enter: one float   Tab: two   F1: settings", middle + Vec2{0, 50},
                 {.anchor = vole::Anchor::centre, .colour = colours::gold, .outline = colours::bark});
}

}  // namespace milk
