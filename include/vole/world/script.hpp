// A pilot that does what a text says, step after step. In kinds.toml:
//
//   script = { steps = ["1.5 right", "0.4 right jump", "1", "2 left"], again = true }
//   script = { steps = ["12 ticks right", "1 tick jump"] }
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

inline constexpr std::size_t most_script_steps = 4096;

// One step, read.
struct ScriptStep {
  float seconds = 0;  // one of the two
  int ticks = 0;
  Vec2 direction{0, 0};
  bool jump = false, drop = false, dash = false, act = false;

  int ticks_at(int ticks_per_second) const;
};
template <class V>
void describe(V& v, ScriptStep& step) {
  v.state("seconds", step.seconds);
  v.state("ticks", step.ticks);
  v.state("direction", step.direction);
  v.state("jump", step.jump);
  v.state("drop", step.drop);
  v.state("dash", step.dash);
  v.state("act", step.act);
}
// Throws Error with the nearest word.
ScriptStep read_script_step(const Located<std::string>& text);

// The steps of a script, each with the text that it was read from.
struct ReadScript {
  std::vector<std::string> texts;
  std::vector<ScriptStep> steps;
};

struct Script {
  std::vector<Located<std::string>> steps;
  bool again = false;  // from the start when all is done
  bool runs = true;

  std::uint32_t step = 0;  // the one that is under way
  int ticks = 0;           // of it
  ScriptStep pushed;       // in the last tick
  // Read from the texts whenever these are others, so no state.
  std::shared_ptr<const ReadScript> read = {};

  bool over() const { return step >= steps.size(); }
};
template <class V>
void describe(V& v, Script& script) {
  v("steps", script.steps, needed().items(most_script_steps));
  v("again", script.again);
  v("runs", script.runs);
  v.state("step", script.step);
  v.state("ticks", script.ticks, within(0, 1e9));
  v.state("pushed", script.pushed);
}

// Anew where its texts are others. Throws Error for what is no step.
void read_steps(Script& script);
// What it wants in this tick; it goes on by one.
Intent next_intent(Script& script, int ticks_per_second);

void need(Script& script, const OfKind& kind);

}  // namespace vole
