#include "staged_level.hpp"

#include <fmt/core.h>

#include "vole/base/files.hpp"
#include "vole/input/controls.hpp"

namespace {

class EmptyScene : public vole::Scene {
  void cues(vole::Cues& cues) override { cues.take_any_name(); }
};
template <class V>
void describe(V&, EmptyScene&) {}

vole::Game with_scene() {
  vole::Game game("game.toml");
  game.scene<EmptyScene>("empty");
  return game;
}

std::shared_ptr<const vole::Controls> controls_of(const vole::Catalog& catalog) {
  const std::string file = vole::join_path(catalog.root(), "controls.toml");
  return std::make_shared<const vole::Controls>(vole::file_exists(file) ? vole::read_controls(file)
                                                                        : vole::Controls());
}

}  // namespace

StagedGame::StagedGame(vole::Catalog& catalog)
    : project_(vole::read_project(vole::join_path(catalog.root(), "game.toml"))),
      game_(with_scene()),
      kinds_(vole::read_kinds(catalog.root(), project_.categories)),
      compiled_(kinds_, {catalog, game_.types(), game_.tracks(), vole::UnknownComponents::skip}),
      controls_(controls_of(catalog)) {}

StagedLevel::StagedLevel(StagedGame& game, const std::string& level, vole::IVec2 canvas)
    : file_("levels/" + level + ".level.toml"),
      setting_{game.compiled_, game.game_.scenes(), game.controls_, canvas, game.project_.ticks_per_second} {
  running_.emplace(setting_, game.game_.steps(), game.game_.scenes().get("empty"), vole::SceneArgument(), 0);
  running_->enter();
  stage().load_level(level);
}

vole::Entity StagedLevel::first(const std::string& kind) {
  const vole::Entity thing = stage().first(kind);
  if (!thing)
    throw vole::Error(vole::FilePosition::whole_file(file_), fmt::format("has no place for a \"{}\"", kind),
                      "name the kind of a thing that is in the level");
  return thing;
}
