#include "scenes.hpp"

void Pause::enter(vole::Stage& stage) {
  stage.cover() = {.darkens = 0.4f, .blurs = 1};
}

void Pause::tick(vole::Stage& stage) {
  if (stage.input().pressed("pause")) stage.close();
  if (stage.input().pressed("settings")) stage.open("settings");
  if (stage.input().pressed("start")) stage.close<Pause>(PauseEnd{.to_title = true});
}

void Pause::cues_below(vole::Cues& cues) {
  cues.when_closed<Pause>([](vole::Stage& stage, const PauseEnd& end) {
    if (end.to_title) stage.leave_for<Title>().with(vole::fade(0.6f));
  });
}

void Pause::draw(vole::Drawing& drawing) const {
  const vole::Vec2 middle = vole::Vec2(drawing.canvas()) / 2.0f;
  const vole::TextStyle centred{.anchor = vole::Anchor::centre};
  drawing.text("letters", "The garden waits", middle - vole::Vec2{0, 14}, centred);
  drawing.text("letters", "Escape: go on   F1: settings   Enter: title", middle + vole::Vec2{0, 8}, centred);
}
