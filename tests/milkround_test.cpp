// The milk round as a whole: the shipped recording, and mornings of other seeds.
#include "milkround.hpp"

#include <set>

#include "../examples/milkround/art/driver.hpp"
#include "support.hpp"
#include "vole/app/session.hpp"
#include "vole/physics/solid_grid.hpp"

namespace {

std::string milkround_folder() {
  return source_folder() + "/examples/milkround";
}

struct Driven {
  vole::Game game = milkround();
  vole::Options options;
  Driver host;
  std::unique_ptr<vole::Session> session;

  explicit Driven(std::uint64_t seed) {
    options.seed = seed;
    session = std::make_unique<vole::Session>(game, vole::read_project(milkround_folder() + "/game.toml"),
                                              options, host);
    host.watch(*session);
  }
};

bool on_line(float at) {
  return std::fmod(at + 160 - 8, 16.0f) == 0;
}

}  // namespace

TEST_CASE("the shipped milk round is driven to its end again") {
  const std::string file = milkround_folder() + "/recordings/round.run";
  const vole::Recording recording = vole::read_recording(file);
  const vole::Game game = milkround();
  vole::Options options;
  options.replay = file;
  vole::HeadlessHost host(60);
  vole::Session session(game, vole::read_project(milkround_folder() + "/game.toml"), options, host);
  std::set<std::string> scenes;
  for (std::int64_t i = 0; i < recording.ticks; ++i) {
    session.tick();
    scenes.emplace(session.scene_name());
  }
  CHECK(session.finish() == 0);
  CHECK(scenes == std::set<std::string>{"end", "round", "title"});
}

TEST_CASE("on other mornings too all that moves is on the lanes, whoever steers it, and rounds are won") {
  int served = 0, spilled = 0, wrapped = 0;
  for (int seed = 1; seed <= cases(6); ++seed) {
    Driven driven(static_cast<std::uint64_t>(seed));
    std::size_t full_before = 0;
    while (!driven.host.closing() && driven.session->step()) {
      const vole::Stage& stage = driven.session->stage();
      stage.entities().visit<vole::GridMover, vole::Pose>(
          [&](vole::Entity thing, const vole::GridMover&, const vole::Pose& pose) {
            const vole::Rect box = stage.box(thing);
            const vole::Vec2 middle = box.at + box.size * 0.5f;
            CAPTURE(seed, stage.ticks(), middle.x, middle.y);
            REQUIRE((on_line(middle.x) || on_line(middle.y)));
            const vole::IVec2 cell = stage.level().cell_at(middle);
            REQUIRE_FALSE(stage.solid().solid(cell.x, cell.y));
            if (std::abs(pose.at.x - pose.before.x) < 8 && (box.left() < 0 || box.right() > 320)) ++wrapped;
          });
      std::size_t full = 0;
      stage.entities().visit<milk::Doorstep, vole::Sprite>(
          [&](vole::Entity, const milk::Doorstep&, const vole::Sprite& sprite) {
            full += sprite.playing.key == "full" ? 1 : 0;
          });
      if (full > full_before) ++served;
      full_before = full;
      stage.entities().visit<vole::Sprite>(
          [&](vole::Entity, const vole::Sprite& sprite) { spilled += sprite.flash.a > 250 ? 1 : 0; });
    }
  }
  CHECK(served > 60);
  CHECK(spilled > 0);
  CHECK(wrapped > 0);
}

TEST_CASE("two play the milk round, each with its own keys") {
  const vole::Game game = milkround();
  vole::Options options;
  options.seed = 3;
  class TwoAtKeys final : public vole::HeadlessHost {
   public:
    TwoAtKeys() : HeadlessHost(60) {}
    void gather(vole::InputGather& gather) override {
      ++ticks_;
      const auto key = [&](const char* name, bool down) {
        gather.add({*vole::find_control(name), down ? 1.0f : 0.0f});
      };
      key("key Tab", ticks_ == 30);
      key("key ArrowRight", ticks_ > 60 && ticks_ < 120);
      key("key KeyA", ticks_ > 60 && ticks_ < 120);
    }

   private:
    int ticks_ = 0;
  } host;
  vole::Session session(game, vole::read_project(milkround_folder() + "/game.toml"), options, host);
  for (int i = 0; i < 120; ++i) session.step();
  const vole::Stage& stage = session.stage();
  REQUIRE(session.scene_name() == "round");
  const float depot = stage.place("depot").x;
  CHECK(stage.get<vole::Pose>(stage.first("float")).at.x > depot + 30);
  CHECK(stage.get<vole::Pose>(stage.first("other float")).at.x < depot - 30);
}
