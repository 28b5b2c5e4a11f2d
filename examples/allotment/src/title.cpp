#include "scenes.hpp"

namespace {

constexpr vole::Colour cream{0xf7, 0xf3, 0xe3, 0xff};
constexpr vole::Colour plum{0x6e, 0x27, 0x41, 0xff};
constexpr vole::Colour night{0x1b, 0x1a, 0x26, 0x90};
constexpr vole::Colour night_blue{0x1b, 0x1a, 0x26, 0xff};
constexpr vole::Colour gold{0xed, 0xa6, 0x3f, 0xff};
constexpr vole::Colour straw{0xe6, 0xc7, 0x7d, 0xff};

}  // namespace

void Title::enter(vole::Stage& stage) {
  stage.load_level("cover");
}

void Title::tick(vole::Stage& stage) {
  if (stage.input().pressed("dig") && !stage.saves().empty()) stage.load(stage.saves().front().name);
  if (stage.input().pressed("settings")) stage.open("settings");
  if (stage.input().pressed("start")) stage.leave_for<Garden>().with(vole::fade(0.6f, night_blue));
}

void Title::draw(vole::Drawing& drawing) const {
  const vole::Vec2 middle{static_cast<float>(drawing.canvas().x) / 2, 40};
  drawing.text("hedgerow", "The Allotment", middle,
               {.anchor = vole::Anchor::centre,
                .colour = cream,
                .outline = plum,
                .shadow = night,
                .shadow_by = {2, 3}});
  drawing.text("letters", "Gather the bulbs before the frost", middle + vole::Vec2{0, 26},
               {.anchor = vole::Anchor::centre, .colour = straw});
  if (const auto& saves = drawing.stage().saves(); !saves.empty()) {
    const vole::Vec2 corner{8, static_cast<float>(drawing.canvas().y) - 62};
    drawing.saved_picture(saves.front().name, corner);
    drawing.text("letters", "Down: go on", corner - vole::Vec2{0, 12});
  }
  const bool shown = drawing.stage().ticks() / 40 % 2 == 0;
  if (!shown) return;
  constexpr vole::ColourRun runs[] = {{0, cream}, {6, gold}};
  drawing.text("letters", "press Enter, F1: settings", middle + vole::Vec2{0, 50},
               {.anchor = vole::Anchor::centre, .runs = runs});
}
