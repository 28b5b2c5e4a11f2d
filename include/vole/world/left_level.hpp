// A level that the scene has gone out of and that is kept as it was left: with what was changed in it, the things that stayed there, and
// what goes on about them. None of it has ticks. The things' ids stay theirs. See Stage::go_to_level.
#pragma once

#include <vector>

#include "vole/world/entities.hpp"
#include "vole/world/level_now.hpp"
#include "vole/world/running_sequences.hpp"
#include "vole/world/timers.hpp"
#include "vole/world/tween.hpp"

namespace vole {

struct LeftLevel {
  explicit LeftLevel(const ComponentTypes& types) : things(types) {}

  LevelNow level;
  std::vector<Timer> timers;  // about the things; `due` and `even` count from when they go on
  std::vector<Tween> tweens;
  std::vector<RunningSequence> sequences;
  Entities things;
};
// But for the things, which are written beside it.
template <class V>
void describe(V& v, LeftLevel& left) {
  v.state("level", left.level);
  v.state("timers", left.timers);
  v.state("tweens", left.tweens);
  v.state("sequences", left.sequences);
}

}  // namespace vole
