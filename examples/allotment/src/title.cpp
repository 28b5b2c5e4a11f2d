#include "scenes.hpp"

namespace {

constexpr vole::Colour cream{0xf7, 0xf3, 0xe3, 0xff};
constexpr vole::Colour straw{0xe6, 0xc7, 0x7d, 0xff};

}  // namespace

void Title::enter(vole::Stage& stage) {
  stage.load_level("cover");
}

void Title::tick(vole::Stage& stage) {
  if (stage.input().pressed("start")) stage.go("beds");
}

void Title::draw(vole::Drawing& drawing) const {
  const vole::Vec2 middle{static_cast<float>(drawing.canvas().x) / 2, 40};
  drawing.text("letters", "THE ALLOTMENT", middle,
               {.anchor = vole::Anchor::centre, .colour = cream, .scale = 2});
  drawing.text("letters", "Gather the bulbs before the frost", middle + vole::Vec2{0, 18},
               {.anchor = vole::Anchor::centre, .colour = straw});
  const bool shown = drawing.stage().tick_count() / 40 % 2 == 0;
  if (shown)
    drawing.text("letters", "press Enter", middle + vole::Vec2{0, 44},
                 {.anchor = vole::Anchor::centre, .colour = cream});
}
