// A scene that runs in a test: a folder with a game in it, and a stage whose cues the test says.
#pragma once

#include <functional>
#include <memory>

#include "support.hpp"
#include "vole/app/game.hpp"
#include "vole/app/project.hpp"
#include "vole/base/state.hpp"
#include "vole/input/controls.hpp"
#include "vole/level/kinds.hpp"
#include "vole/scene/running_scene.hpp"
#include "vole/vole.hpp"
#include "vole/world/binding.hpp"

// Says the cues that a test wants.
class CueScene : public vole::Scene {
 public:
  void cues(vole::Cues& cues) override {
    if (say) say(cues);
  }
  void tick(vole::Stage& stage) override {
    if (work) work(stage);
  }
  void draw(vole::Drawing&) const override {
    if (look) look();
  }
  static inline std::function<void(vole::Cues&)> say;
  static inline std::function<void(vole::Stage&)> work;  // in each tick, before anything moves
  static inline std::function<void()> look;              // while a picture is drawn
};
template <class V>
void describe(V&, CueScene&) {}

struct TestStage {
  vole::Game game{"game.toml"};
  vole::Kinds kinds;
  std::unique_ptr<vole::Catalog> catalog;
  std::unique_ptr<vole::CompiledKinds> compiled;
  std::unique_ptr<vole::StageSetting> setting;
  std::unique_ptr<vole::RunningScene> running;
  vole::TickInput input;  // of the next tick

  TestStage() { game.scene<CueScene>("cues"); }
  ~TestStage() {
    CueScene::say = nullptr;
    CueScene::work = nullptr;
    CueScene::look = nullptr;
  }

  // A new scene with the files as they are now.
  vole::Stage& start(const TempFolder& folder) {
    running.reset();
    const std::string project = folder.path("game.toml");
    kinds =
        vole::read_kinds(folder.path(), vole::file_exists(project) ? vole::read_project(project).categories
                                                                   : vole::Categories{});
    catalog = std::make_unique<vole::Catalog>(folder.path());
    compiled =
        std::make_unique<vole::CompiledKinds>(kinds, vole::Binding{*catalog, game.types(), game.tracks()});
    const std::string controls = folder.path("controls.toml");
    setting = std::make_unique<vole::StageSetting>(vole::StageSetting{
        *compiled,
        game.scenes(),
        std::make_shared<const vole::Controls>(vole::file_exists(controls) ? vole::read_controls(controls)
                                                                           : vole::Controls{}),
        {64, 32},
        60});
    input = vole::TickInput(setting->controls);
    return enter();
  }
  vole::Stage& enter() {
    running = std::make_unique<vole::RunningScene>(*setting, game.steps(), game.scenes().get("cues"),
                                                   vole::SceneArgument(), 1);
    running->enter();
    return running->stage();
  }
  // Has the scene say these cues from now on.
  void say(std::function<void(vole::Cues&)> cues) {
    CueScene::say = std::move(cues);
    running->bind();
  }
  void tick(int times = 1) {
    for (int i = 0; i < times; ++i) running->tick(input);
  }
  vole::PictureItem drawn(std::size_t index = 0) {
    vole::DrawList list;
    list.start({64, 32});
    running->draw(list, 1);
    return list.items().at(index).picture;
  }
  // The state as bytes.
  vole::StateBytes state() const {
    vole::StateWriter out;
    running->write(out);
    return out.take();
  }
};
