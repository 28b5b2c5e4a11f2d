// What happens in a tick, in this order:
//
//   files      changed sheets and levels are taken over        movers    intent becomes motion
//   poses      each pose remembers where it was                meetings  cues are called for those that begin
//   timers     cues are called for what is due                 tweens    fields go on
//   pointer    and for what is clicked and dropped             clips     rules decide, clips go on, cues for events
//   scene      Scene::tick                                     points    attached things follow their points
//   pilots     input becomes intent                            camera    follows
//   platforms  go on, carry and push                           pieces    an endless level goes on
//                                                              removal   what was removed goes
//
// A game adds a step of its own after any of them:
//
//   Game("game.toml").step_after("movers", "wind", blow);            // void blow(vole::Stage& stage)
#pragma once

#include <functional>
#include <string>
#include <string_view>
#include <vector>

#include "vole/scene/movers/movers.hpp"

namespace vole {

class Stage;
struct Tick;

struct TickStep {
  std::string name;
  // Left out while things are frozen.
  bool of_things = false;
  // One of the two: of the library, or of the game.
  void (*run)(Tick& tick) = nullptr;
  std::function<void(Stage&)> run_own = {};
};

class TickSteps {
 public:
  // The library's.
  TickSteps();

  // Throws Error with the nearest name when there is no step `after`. Left out while things are frozen where
  // that one is.
  void add_after(std::string_view after, std::string_view name, std::function<void(Stage&)> step);
  const std::vector<TickStep>& all() const { return steps_; }
  // What the step "movers" runs.
  Movers& movers() { return movers_; }
  const Movers& movers() const { return movers_; }

 private:
  Movers movers_;
  std::vector<TickStep> steps_;
};

}  // namespace vole
