#include "village.hpp"

namespace milk {

namespace {

constexpr int board_height = 20;
constexpr float darkest = 0.5f;

enum class Windows { dark, lit };
constexpr auto enum_names(Windows) {
  return std::array<std::string_view, 2>{"dark", "lit"};
}

}  // namespace

void enter_village(vole::Stage& stage, int dogs) {
  stage.load_level("village");
  const vole::IVec2 size = stage.level().size();
  stage.camera().at = {0, board_height};
  stage.camera().canvas = size;
  stage.camera().jump_to(vole::Vec2(size) / 2.0f);
  int place = 0;
  stage.each("kennel", [&](vole::Entity kennel) {
    if (place++ < dogs) stage.spawn("dog", stage.get<vole::Pose>(kennel).at);
  });
  stage.each("step", [&](vole::Entity step) { show_step(stage, step, Step::bare); });
}

void show_step(vole::Stage& stage, vole::Entity step, Step shows) {
  stage.get<Doorstep>(step).waits = shows == Step::waits;
  stage.get<vole::Sprite>(step).play("doorstep", shows);
}

void brighten(vole::Stage& stage, float dark) {
  stage.level().darken(darkest * dark);
  stage.each_tagged("cottage", [&](vole::Entity cottage) {
    vole::Sprite& sprite = stage.get<vole::Sprite>(cottage);
    sprite.play(sprite.playing.set, dark > 0.4f ? Windows::lit : Windows::dark);
  });
}

void draw_board(vole::Drawing& drawing) {
  drawing.frame("board", 0, {0, 0});
}

}  // namespace milk
