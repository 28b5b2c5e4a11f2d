// Plays the allotment from title to finish, and records the run:
//
//   allotment_rehearse recordings/harvest.run
#include <fmt/core.h>

#include <cstdio>

#include "allotment.hpp"
#include "gatherer.hpp"
#include "vole/base/program.hpp"

namespace {

class Player final : public vole::HeadlessHost {
 public:
  Player() : HeadlessHost(60) {}

  void watch(const vole::Session& session) { session_ = &session; }

  void gather(vole::InputGather& gather) override {
    const Gatherer::Wants wants = gatherer_.next(*session_);
    const auto press = [&gather](const char* name, bool down) {
      gather.add({*vole::find_control(name), down ? 1.0f : 0.0f});
    };
    press("key Enter", wants.start);
    press("key ArrowDown", wants.dig);
    press("key ArrowRight", wants.right);
    press("key ArrowLeft", wants.left);
    press("key Space", wants.jump);
  }

  bool closing() const override {
    return session_->scene_name() == "finish" && session_->stage().ticks() > 150;
  }

 private:
  Gatherer gatherer_;
  const vole::Session* session_ = nullptr;
};

}  // namespace

int main(int argc, char** argv) {
  if (argc != 2) {
    fmt::print(stderr, "usage: allotment_rehearse FILE.run\n");
    return 2;
  }
  try {
    const vole::Game game = allotment();
    vole::Options options;
    options.record = argv[1];
    options.seed = 7;
    Player player;
    vole::Session session(game,
                          vole::read_project(vole::find_project("game.toml", vole::program_path(argv[0]))),
                          options, player);
    player.watch(session);
    while (session.step()) {
    }
    return session.finish();
  } catch (const std::exception& error) {
    fmt::print(stderr, "{}\n", error.what());
    return 1;
  }
}
