// A level as a scene shows it that does nothing but load it: with its darkness, lamps and shadows.
#include "preview_level.hpp"
#include "vole/app/game.hpp"
#include "vole/app/project.hpp"
#include "vole/draw/raster.hpp"
#include "vole/scene/running_scene.hpp"

namespace {

class EmptyScene : public vole::Scene {};
template <class V>
void describe(V&, EmptyScene&) {}

}  // namespace

void preview_light(vole::Catalog& catalog, const vole::Level& level, const std::string& output) {
  const vole::IVec2 size = size_of_picture(level);
  const vole::Project project = vole::read_project(vole::join_path(catalog.root(), "game.toml"));
  vole::Game game("game.toml");
  game.scene<EmptyScene>("empty");
  const vole::Kinds kinds = vole::read_kinds(catalog.root(), project.categories);
  vole::CompiledKinds compiled(kinds, {catalog, game.types(), game.tracks(), vole::UnknownComponents::skip});
  const vole::StageSetting setting{compiled, game.scenes(), std::make_shared<const vole::Controls>(), size,
                                   project.ticks_per_second};
  vole::RunningScene running(setting, game.steps(), game.scenes().get("empty"), {}, 0);
  running.enter();
  vole::Stage& stage = running.stage();
  stage.load_level(level.name);
  stage.camera.bounds = {};
  stage.camera.jump_to(vole::Vec2(stage.level().offset()) + vole::Vec2(size) * 0.5f);

  vole::DrawList list;
  list.start(size);
  running.draw(list, 1);
  list.sort();
  vole::Image image(size, running.sky());
  vole::Raster().draw(list, image);
  save_level(image, output);
}
