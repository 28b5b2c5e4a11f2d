// Plays the allotment by looking at the stage. It is no cleverer than it must be: a list of spots to reach in turn, walking towards
// the next and jumping where the way is blocked, ends, or leads up.
#pragma once

#include <fmt/core.h>

#include <cmath>
#include <span>
#include <stdexcept>

#include "vole/app/session.hpp"

namespace route {

// A cell to stand in; `jump_from` says from which x (in cells) to jump for it, 0 where walking does.
struct Spot {
  float x = 0;
  float y = 0;
  float jump_from = 0;
  bool dig = false;  // there, until what is in the mound is gathered
};

inline constexpr Spot beds[] = {
#include "route.inc"
};
inline constexpr Spot cellar[] = {
#include "route_below.inc"
};

}  // namespace route

// Decides what is pressed, tick after tick.
class Gatherer {
 public:
  struct Wants {
    bool start = false, left = false, right = false, jump = false, dig = false;
  };

  Wants next(const vole::Session& session) {
    const vole::Stage& stage = session.stage();
    Wants wants;
    if (session.scene_name() == "title") wants.start = stage.ticks() == 90;
    if (session.scene_name() == "garden")
      wants = stage.level().name() == "beds" ? play(stage, route::beds) : play(stage, route::cellar);
    return wants;
  }

 private:
  Wants play(const vole::Stage& stage, std::span<const route::Spot> spots) {
    Wants wants;
    if (spots.data() != spots_.data()) {
      next_ = 0;
      since_ = 0;
      jumping_ = left_ground_ = false;
    }
    spots_ = spots;
    const auto& pose = stage.get<vole::Pose>(stage.first("vole"));
    const vole::Vec2 velocity = stage.get<vole::Motion>(stage.first("vole")).velocity;
    const bool on_ground = stage.get<vole::Touching>(stage.first("vole")).ground;
    const route::Spot& spot = spots[next_];
    const float x = (spot.x + 0.5f) * 16;
    const float y = (spot.y + 1) * 16;
    const bool there = std::abs(pose.at.x - x) < 5 && std::abs(pose.at.y - y) < 3 && on_ground;
    const bool digs = there && spot.dig && mound_at(stage, x);
    wants.dig = digs;
    if (there && !digs && next_ + 1 < spots.size()) {
      ++next_;
      since_ = 0;
    }
    ++since_;
    if (since_ > 600)
      throw std::runtime_error(fmt::format("stuck on the way to spot {} ({}, {}) at ({:.1f}, {:.1f})", next_,
                                           spot.x, spot.y, pose.at.x / 16, pose.at.y / 16));
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
    wants.right = rest > 1.5f;
    wants.left = rest < -1.5f;
    wants.jump = jumping_ && velocity.y <= 0 && !(left_ground_ && on_ground);
    return wants;
  }

  static bool mound_at(const vole::Stage& stage, float x) {
    const vole::Entity mound = stage.first("mound");
    return mound && std::abs(stage.get<vole::Pose>(mound).at.x - x) < 8;
  }

  std::span<const route::Spot> spots_;
  std::size_t next_ = 0;
  int since_ = 0;
  bool jumping_ = false;
  bool left_ground_ = false;
};
