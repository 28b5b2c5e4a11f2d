// A side mover that is played ahead of time, to see where it would come to: nothing else moves, and nobody else sees it.
#pragma once

#include <algorithm>

#include "vole/base/within.hpp"
#include "vole/scene/movers/mover_turn.hpp"
#include "vole/world/side_mover.hpp"

namespace vole {

class SidePlay {
 public:
  // All that decides how it goes on.
  struct State {
    Pose pose;
    Motion motion;
    Touching touching;
    SideMover side;
    Body body;
    bool jump_held = false;  // in the tick before
  };

  const CollisionWorld& world;
  const LevelNow& level;
  CollisionBody body;
  MoveRules rules;
  float seconds = 0;  // of a tick
  // Where bodies of things count as well as tiles.
  const SolidThings* things = nullptr;
  const Entities* entities = nullptr;

  void tick(State& state, const Intent& intent) const;
  // How many ticks so much time is; at least one.
  int ticks_in(float its_seconds) const {
    return std::max(1, floor_to_int(its_seconds / seconds + 0.5f));
  }
  // Whether it has left the level where that has no floor and no walls.
  bool outside(const State& state) const;
};

}  // namespace vole
