// A level as a scene shows it that does nothing but load it: with its darkness, lamps and shadows.
#include "preview_level.hpp"
#include "staged_level.hpp"
#include "vole/draw/raster.hpp"

void preview_light(vole::Catalog& catalog, const vole::Level& level, const std::string& output) {
  save_level(picture_of(catalog, level), output);
}

vole::Image picture_of(vole::Catalog& catalog, const vole::Level& level, const DrawOver& draw_over) {
  const vole::IVec2 size = size_of_picture(level);
  StagedGame game(catalog);
  StagedLevel staged(game, level.name, size);
  vole::Stage& stage = staged.stage();
  stage.camera().bounds = {};
  stage.camera().jump_to(vole::Vec2(stage.level().offset()) + vole::Vec2(size) * 0.5f);
  vole::DrawList list;
  list.start(size);
  if (draw_over) stage.level().darken(0);
  staged.scene().draw(list, 1);
  if (draw_over) draw_over(staged, list, list.add_layer({0, 0}));
  list.sort();
  vole::Image image(size, staged.scene().sky());
  vole::Raster().draw(list, image);
  return image;
}
