#include "scenes.hpp"

namespace milk {

void Pause::enter(vole::Stage& stage) {
  stage.cover() = {.darkens = 0.5f};
}

void Pause::tick(vole::Stage& stage) {
  if (stage.input().pressed("pause")) stage.close();
  if (stage.input().pressed("settings")) stage.open("settings");
  if (stage.input().pressed("start")) stage.close<Pause>(PauseEnd{.to_title = true});
}

void Pause::draw(vole::Drawing& drawing) const {
  const vole::Vec2 middle = vole::Vec2(drawing.canvas()) / 2.0f;
  drawing.text(
      "letters", "Paused", middle - vole::Vec2{0, 18},
      {.anchor = vole::Anchor::centre, .colour = colours::cream, .scale = 2, .outline = colours::bark});
  drawing.text("letters", "Escape: go on   F1: settings   Enter: title", middle + vole::Vec2{0, 10},
               {.anchor = vole::Anchor::centre, .colour = colours::straw, .outline = colours::bark});
}

}  // namespace milk
