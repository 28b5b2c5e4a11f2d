// Runs along the towpath by looking a little ahead: it jumps at walls and at the ends of what it runs on.
#pragma once

#include <vole/vole.hpp>

#include "vole/app/session.hpp"
#include "vole/physics/solid_grid.hpp"

class Pilot {
 public:
  // Whether the jump is held in this tick.
  bool holds_jump(const vole::Stage& stage) {
    const vole::Entity vole = stage.first("vole");
    const vole::Vec2 at = stage.get<vole::Pose>(vole).at;
    const bool rises = stage.get<vole::Motion>(vole).velocity.y < 0;
    if (!stage.get<vole::Touching>(vole).ground) return holds_ = holds_ && rises;
    const vole::SolidGrid& solid = stage.solid();
    const auto solid_at = [&](float right, float up, bool boards_too) {
      return solid.blocks({at + vole::Vec2{right, -up}, {1, 1}}, boards_too);
    };
    const bool wall = solid_at(14, 6, false) || solid_at(20, 6, false);
    const bool end = !solid_at(8, -2, true) && !solid_at(8, -10, true);
    // Let go for a tick, so that it is a new press.
    return holds_ = !holds_ && (wall || end);
  }

 private:
  bool holds_ = false;
};

// A host without a window, at whose key the pilot sits.
class PilotedHost : public vole::HeadlessHost {
 public:
  PilotedHost() : HeadlessHost(60) {}
  // From now on; the session outlives this.
  void watch(const vole::Session& session) { session_ = &session; }
  void gather(vole::InputGather& gather) override {
    if (!session_) return;
    const bool jumps = pilot_.holds_jump(session_->stage());
    gather.add({*vole::find_control("key Space"), jumps ? 1.0f : 0.0f});
  }

 protected:
  const vole::Session* session_ = nullptr;

 private:
  Pilot pilot_;
};
