// @TITLE@: a robin on a garden wall, and berries to eat.
#include <cmath>
#include <string>
#include <vole/desktop.hpp>

#include "names.hpp"

using Robin = names::sheet::robin;  // a clip that its sheet has not does not compile

class Wall : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override {
    stage.load_level(names::level::wall);
    robin_ = stage.first("robin");
    stage.follow(robin_);
    stage.when_meet("robin", "berry", [this, &stage](vole::Entity, vole::Entity berry) {
      stage.remove(berry);
      ++eaten_;
    });
  }

  void tick(vole::Stage& stage) override {
    const auto& body = stage.get<vole::Body>(robin_);
    vole::SpriteOf<Robin> look(stage.get<vole::Sprite>(robin_));
    if (!body.on_ground)
      look.play(body.velocity.y < 0 ? Robin::clip::up : Robin::clip::down);
    else
      look.play(std::abs(body.velocity.x) > 4 ? Robin::clip::hop : Robin::clip::sit);
  }

  void draw(vole::Drawing& drawing) const override {
    const int left = drawing.stage().count("berry");
    const std::string text = left > 0 ? "berries: " + std::to_string(eaten_) : "All eaten!";
    vole::draw_text(drawing.list(), drawing.layer(), vole::plain_font(), text, {6, 6});
  }

  void add_to(vole::Hash& hash) const override { hash.add(std::int64_t{eaten_}); }

 private:
  vole::Entity robin_;
  int eaten_ = 0;
};

int main(int argc, char** argv) {
  return vole::run(argc, argv, vole::Game("game.toml").scene<Wall>("wall"));
}
