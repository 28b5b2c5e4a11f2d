// Drives the milk round: to the nearest doorstep that waits, around dogs, round after round.
#pragma once

#include <cmath>
#include <cstdlib>
#include <optional>

#include "village.hpp"
#include "vole/app/session.hpp"
#include "vole/level/way_field.hpp"
#include "vole/physics/solid_grid.hpp"

// Decides what is pressed and pushed, tick after tick.
class Milkman {
 public:
  struct Wants {
    bool start = false, ring = false;
    vole::IVec2 way{0, 0};
  };

  Wants next(const vole::Session& session) {
    ++ticks_;
    Wants wants;
    wants.start = session.scene_name() == "title" && ticks_ > 90 && ticks_ < 100;
    if (session.scene_name() != "round") return wants;
    wants.way = way_to_go(session.stage());
    wants.ring = dog_is_near(session.stage(), 2);
    return wants;
  }
  bool tired() const { return ticks_ >= longest; }

 private:
  using Entity = vole::Entity;
  using IVec2 = vole::IVec2;
  using Vec2 = vole::Vec2;
  static constexpr int tile = 16;
  static constexpr std::int64_t longest = 60 * 150;

  static IVec2 cell_of(Vec2 feet) {
    return {static_cast<int>(std::floor(feet.x / tile)), static_cast<int>(std::floor((feet.y - 8) / tile))};
  }

  static bool dog_is_near(const vole::Stage& stage, int cells) {
    const Entity milk_float = stage.first("float");
    bool near = false;
    stage.entities().visit<vole::Mind, vole::KindOf>(
        [&](Entity dog, const vole::Mind&, const vole::KindOf& kind) {
          if (kind.name != "dog") return;
          const Vec2 off = stage.get<vole::Pose>(dog).at - stage.get<vole::Pose>(milk_float).at;
          near = near || vole::length_of(off) < static_cast<float>(cells * tile);
        });
    return near;
  }

  static IVec2 way_to_go(const vole::Stage& stage) {
    const IVec2 here = cell_of(stage.get<vole::Pose>(stage.first("float")).at);
    std::optional<IVec2> best;
    int shortest = 0;
    stage.entities().visit<milk::Doorstep>([&](Entity step, const milk::Doorstep& its) {
      if (!its.waits) return;
      const IVec2 goal = cell_of(stage.get<vole::Pose>(step).at);
      vole::WayField ways({{0, 0}, stage.level().cells()}, goal, vole::WaySteps::four, [&](IVec2 cell) {
        return !stage.solid().solid(cell.x, cell.y) && (cell == here || !is_guarded(stage, cell));
      });
      const std::optional<int> length = ways.length(here);
      if (!length || (best && *length >= shortest)) return;
      shortest = *length;
      best = ways.next(here);
    });
    return best ? *best - here : IVec2{0, 0};
  }

  // Whether a dog is there, or beside it.
  static bool is_guarded(const vole::Stage& stage, IVec2 cell) {
    bool guarded = false;
    stage.entities().visit<vole::Mind, vole::KindOf>(
        [&](Entity dog, const vole::Mind&, const vole::KindOf& kind) {
          if (kind.name != "dog") return;
          const IVec2 off = cell_of(stage.get<vole::Pose>(dog).at) - cell;
          guarded = guarded || std::abs(off.x) + std::abs(off.y) <= 2;
        });
    return guarded;
  }

  std::int64_t ticks_ = 0;
};

// A host without a window, at whose keys he sits.
class Driver : public vole::HeadlessHost {
 public:
  Driver() : HeadlessHost(60) {}
  // From now on; the session outlives this.
  void watch(const vole::Session& session) { session_ = &session; }
  // When the end has been seen for a moment.
  bool closing() const override {
    return (session_->scene_name() == "end" && session_->stage().ticks() > 30) || milkman_.tired();
  }

  void gather(vole::InputGather& gather) override {
    if (!session_) return;
    const auto key = [&](const char* name, bool down) {
      gather.add({*vole::find_control(name), down ? 1.0f : 0.0f});
    };
    const Milkman::Wants wants = milkman_.next(*session_);
    key("key Enter", wants.start);
    key("key ArrowLeft", wants.way.x < 0);
    key("key ArrowRight", wants.way.x > 0);
    key("key ArrowUp", wants.way.y < 0);
    key("key ArrowDown", wants.way.y > 0);
    key("key Space", wants.ring);
  }

 private:
  const vole::Session* session_ = nullptr;
  Milkman milkman_;
};
