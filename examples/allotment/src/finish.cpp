#include "scenes.hpp"

void Finish::enter(vole::Stage& stage) {
  stage.load_level("cover");
  if (const auto* harvest = stage.brought<Harvest>()) harvest_ = *harvest;
}

void Finish::tick(vole::Stage& stage) {
  if (stage.input().pressed("start")) stage.go("title");
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

void Finish::add_to(vole::Hash& hash) const {
  hash.add(std::int64_t{harvest_.gathered});
  hash.add(harvest_.ticks);
}
