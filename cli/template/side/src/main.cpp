// @TITLE@: a robin on a garden wall, and berries to eat.
#include <string>
#include <vole/window.hpp>

#include "names.hpp"

using Berry = names::sheet::berry;  // a clip that the sheet does not have is a compile error

class Wall : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override {
    stage.load_level(names::level::wall);
    stage.follow(stage.first("robin"));
  }

  void cues(vole::Cues& cues) override {
    cues.when_meet("robin", "berry", [this](vole::Stage& stage, vole::Entity robin, vole::Entity berry) {
      ++eaten;
      stage.remove(berry);
      stage.get<vole::Sprite>(robin).play_track(vole::tracks::squash());
    });
    cues.every(3, [](vole::Stage& stage) {
      if (const vole::Entity berry = stage.first("berry"))
        vole::SpriteOf<Berry>(stage.get<vole::Sprite>(berry)).play(Berry::clip::shine);
    });
  }

  void draw(vole::Drawing& drawing) const override {
    const bool all = drawing.stage().count("berry") == 0;
    const std::string text = all ? "All eaten!" : "berries: " + std::to_string(eaten);
    drawing.text(text, {6, 6});
  }

  int eaten = 0;
};

// What a scene lists here is saved and repeated with it.
template <class V>
void describe(V& v, Wall& wall) {
  v.state("eaten", wall.eaten);
}

int main(int argc, char** argv) {
  return vole::run(argc, argv, vole::Game("game.toml").scene<Wall>("wall"));
}
