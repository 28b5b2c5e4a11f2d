// A pilot that does what a text says, step after step. In kinds.toml:
//
//   routine = { steps = ["1.5 right", "0.4 right jump", "1", "2 left"], loop = true }
//   routine = { steps = ["12 ticks right", "1 tick jump"] }
//
// First how long, in seconds or ticks; then what is pushed meanwhile: left, right, up, down, jump, drop, dash, act. Nothing: it
// waits. What is pushed in the step before too is held on and not pressed anew. After the last step it wants nothing.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "vole/base/describe.hpp"
#include "vole/input/intent.hpp"

namespace vole {

class OfKind;

inline constexpr std::size_t most_routine_steps = 4096;

// One step, read.
struct RoutineStep {
  float seconds = 0;  // one of the two
  int ticks = 0;
  Vec2 direction{0, 0};
  bool jump = false, drop = false, dash = false, act = false;

  int ticks_at(int ticks_per_second) const;
};
template <class V>
void describe(V& v, RoutineStep& step) {
  v.state("seconds", step.seconds);
  v.state("ticks", step.ticks);
  v.state("direction", step.direction);
  v.state("jump", step.jump);
  v.state("drop", step.drop);
  v.state("dash", step.dash);
  v.state("act", step.act);
}
// Throws Error with the nearest word.
RoutineStep read_routine_step(const Located<std::string>& text);

// The steps of a routine, each with the text that it was read from.
struct ReadRoutine {
  std::vector<std::string> texts;
  std::vector<RoutineStep> steps;
};

struct Routine {
  std::vector<Located<std::string>> steps;
  bool loop = false;  // from the start when all is done
  bool runs = true;

  std::uint32_t step = 0;  // the one that is under way
  int ticks = 0;           // of it
  RoutineStep pushed;      // in the last tick
  // Read from the texts whenever these are others, so no state.
  std::shared_ptr<const ReadRoutine> read = {};

  bool over() const { return step >= steps.size(); }
};
template <class V>
void describe(V& v, Routine& routine) {
  v("steps", routine.steps, needed().items(most_routine_steps).empty_allowed());
  v("loop", routine.loop);
  v("runs", routine.runs);
  v.state("step", routine.step);
  v.state("ticks", routine.ticks, within(0, 1e9));
  v.state("pushed", routine.pushed);
}

// Anew where its texts are others. Throws Error for what is no step.
void read_steps(Routine& routine);
// What it wants in this tick; it goes on by one.
Intent next_intent(Routine& routine, int ticks_per_second);

void need(Routine& routine, const OfKind& kind);

}  // namespace vole
