// What happens in a tick, in this order:
//
//   files      changed sheets and levels are taken over        movers    intent becomes motion
//   time       how many steps things take                      meetings  cues are called for those that begin
//   poses      each pose remembers where it was                tweens    fields go on
//   timers     cues are called for what is due                 clips     rules decide, clips go on, cues for events
//   pointer    and for what is clicked and dropped             points    attached things follow their points
//   scene      Scene::tick                                     camera    follows
//   pilots     input becomes intent                            pieces    an endless level goes on
//   sequences  take their steps                                removal   what was removed goes
//   platforms  go on, carry and push                           values    cues are called for those that have changed
//
// From "pilots" to "points" all is done as often as things take steps in the tick (world/own_time.hpp), once as a rule.
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
  // Done for each step of things in the tick; left out while they are frozen.
  bool of_things = false;
  // One of the two: of the library, or of the game.
  void (*run)(Tick& tick) = nullptr;
  std::function<void(Stage&)> run_own = {};
};

class TickSteps {
 public:
  // The library's.
  TickSteps();

  // Throws Error with the nearest name when there is no step `after`. Done for each step of
  // things where that one is.
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
