// Plays the allotment from title to finish by looking at the stage, and records the run:
//
//   allotment_rehearse recordings/harvest.run
//
// It is no cleverer than it must be: a list of spots to reach in turn, walking towards the next and jumping
// where the way is blocked, ends, or leads up.
#include <fmt/format.h>

#include <cmath>
#include <cstdio>
#include <span>

#include "allotment.hpp"
#include "vole/app/session.hpp"
#include "vole/base/program.hpp"

namespace {

using vole::Vec2;

// A cell to stand in; `jump_from` says from which x (in cells) to jump for it, 0 where walking does.
struct Spot {
  float x = 0;
  float y = 0;
  float jump_from = 0;
  bool dig = false;  // there, until what is in the mound is gathered
};

constexpr Spot beds[] = {
#include "route.inc"
};
constexpr Spot cellar[] = {
#include "route_below.inc"
};

class Player final : public vole::HeadlessHost {
 public:
  Player() : HeadlessHost(60) {}

  void watch(const vole::Session& session) { session_ = &session; }

  void gather(vole::InputGather& gather) override {
    const auto& stage = session_->stage();
    if (session_->scene_name() == "title")
      press(gather, "key Enter", stage.ticks() == 90);
    else if (session_->scene_name() == "beds")
      play(gather, stage, beds);
    else if (session_->scene_name() == "cellar")
      play(gather, stage, cellar);
    else
      release(gather);
  }

  bool closing() const override {
    return session_->scene_name() == "finish" && session_->stage().ticks() > 150;
  }

 private:
  static void press(vole::InputGather& gather, const char* name, bool down) {
    gather.add({*vole::find_control(name), down ? 1.0f : 0.0f});
  }
  static void release(vole::InputGather& gather) {
    for (const char* name : {"key Enter", "key Space", "key ArrowLeft", "key ArrowRight", "key ArrowDown"})
      press(gather, name, false);
  }

  void play(vole::InputGather& gather, const vole::Stage& stage, std::span<const Spot> route) {
    if (route.data() != route_.data()) {
      next_ = 0;
      since_ = 0;
      jumping_ = left_ground_ = false;
    }
    route_ = route;
    const auto& pose = stage.get<vole::Pose>(stage.first("vole"));
    const vole::Vec2 velocity = stage.get<vole::Motion>(stage.first("vole")).velocity;
    const bool on_ground = stage.get<vole::Touching>(stage.first("vole")).ground;
    const Spot& spot = route[next_];
    const float x = (spot.x + 0.5f) * 16;
    const float y = (spot.y + 1) * 16;
    const bool there = std::abs(pose.at.x - x) < 5 && std::abs(pose.at.y - y) < 3 && on_ground;
    const bool digs = there && spot.dig && mound_at(stage, x);
    press(gather, "key ArrowDown", digs);
    if (there && !digs && next_ + 1 < route.size()) {
      ++next_;
      since_ = 0;
    }
    ++since_;
    if (since_ > 600) {
      fmt::print(stderr, "stuck on the way to spot {} ({}, {}) at ({:.1f}, {:.1f})\n", next_, spot.x, spot.y,
                 pose.at.x / 16, pose.at.y / 16);
      std::exit(1);
    }
    // First to where the jump begins, then on in the air.
    const bool on_this_side = (spot.jump_from * 16 - x) * (pose.at.x - spot.jump_from * 16) > -64;
    const bool must_jump = spot.jump_from > 0 && (on_this_side || std::abs(pose.at.y - y) > 3);
    const float aim = must_jump && on_ground && !jumping_ ? spot.jump_from * 16 : x;
    const float away = aim - pose.at.x;
    const bool at_start = must_jump && std::abs(away) < 4;
    if (on_ground && !jumping_ && at_start)
      jumping_ = true;
    else if (on_ground && jumping_ && left_ground_)
      jumping_ = left_ground_ = false;
    if (jumping_ && !on_ground) left_ground_ = true;
    const float towards = jumping_ ? x - pose.at.x : away;
    // Let go a little early: the vole slides to a stop.
    const float braking = velocity.x * std::abs(velocity.x) / (2 * 900);
    const bool running_up = must_jump && !jumping_;
    const float rest = towards - (running_up ? 0 : on_ground ? braking : braking / 0.7f);
    press(gather, "key ArrowRight", rest > 1.5f);
    press(gather, "key ArrowLeft", rest < -1.5f);
    press(gather, "key Space", jumping_ && velocity.y <= 0 && !(left_ground_ && on_ground));
  }

  static bool mound_at(const vole::Stage& stage, float x) {
    const vole::Entity mound = stage.first("mound");
    return mound && std::abs(stage.get<vole::Pose>(mound).at.x - x) < 8;
  }

  const vole::Session* session_ = nullptr;
  std::span<const Spot> route_;
  std::size_t next_ = 0;
  int since_ = 0;
  bool jumping_ = false;
  bool left_ground_ = false;
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
