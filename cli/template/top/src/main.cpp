// @TITLE@: a beetle on the paths of a garden, and seeds to carry home.
#include <string>
#include <vole/window.hpp>

#include "names.hpp"

class Paths : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override {
    stage.load_level(names::level::paths);
    stage.follow(stage.first("beetle"));
  }

  void cues(vole::Cues& cues) override {
    cues.when_meet("beetle", "seed", [this](vole::Stage& stage, vole::Entity, vole::Entity seed) {
      ++found;
      stage.remove(seed);
    });
    cues.every(2, [](vole::Stage& stage) {
      stage.each("seed", [&stage](vole::Entity seed) {
        vole::SpriteOf<names::sheet::seed>(stage.get<vole::Sprite>(seed))
            .play(names::sheet::seed::clip::shine);
      });
    });
  }

  void tick(vole::Stage& stage) override {
    if (stage.count("seed") == 0 && stage.input().pressed(names::action::again)) stage.leave_for<Paths>();
  }

  void draw(vole::Drawing& drawing) const override {
    const bool all = drawing.stage().count("seed") == 0;
    drawing.text(all ? "All found! Enter: again" : "seeds: " + std::to_string(found), {6, 6});
  }

  int found = 0;
};

// What a scene lists here is saved and repeated with it.
template <class V>
void describe(V& v, Paths& paths) {
  v.state("found", paths.found);
}

int main(int argc, char** argv) {
  return vole::run(argc, argv, vole::Game("game.toml").scene<Paths>("paths"));
}
