// Goes from cell to cell along lanes, seen from above. In kinds.toml:
//
//   grid_mover = { cell = [16, 16], speed = 70 }
//   grid_mover = { speed = 70, keeps_going = true }
//
// The middle of its body is always on a lane: a line through the middles of cells. It turns where two lanes cross, turns back anywhere,
// and stops on a junction, never between two. Into a cell in which there is no room for its body it does not go; a body may be
// as wide as its lane.
//
// What is `pushable` goes on by one cell before it: a row of as many things as its `strength` says, or none of them. Once it
// pushes it goes on to the next junction; where something comes into the way of the row it waits, or goes back with all of it.
#pragma once

#include <vector>

#include "vole/base/describe.hpp"
#include "vole/base/entity.hpp"
#include "vole/base/vec.hpp"

namespace vole {

struct GridMover {
  float speed = 60;          // pixels a second
  IVec2 cell{16, 16};        // pixels
  Vec2 origin{0, 0};         // the corner of a cell
  float early_turn = 0.3f;   // seconds for which a turn that is asked for too early is remembered
  bool keeps_going = false;  // until it is held, also when nothing is pushed
  int strength = 1;          // how many things in a row it pushes; 0: none

  IVec2 heading{0, 0};  // the way it goes, one of four; none while it stands
  IVec2 pushed{0, 0};   // in the last tick
  IVec2 wanted{0, 0};   // the way that was asked for and not yet gone
  float since_wanted = 1000;
  std::vector<Entity> row;  // that it pushes
};
template <class V>
void describe(V& v, GridMover& mover) {
  v("speed", mover.speed, within(0, 100000));
  v("cell", mover.cell, within(1, 4096));
  v("origin", mover.origin, position());
  v("early_turn", mover.early_turn, within(0, 10));
  v("keeps_going", mover.keeps_going);
  v("strength", mover.strength, within(0, 64));
  v.state("heading", mover.heading);
  v.state("pushed", mover.pushed);
  v.state("wanted", mover.wanted);
  v.state("since_wanted", mover.since_wanted);
  v.state("row", mover.row);
}

}  // namespace vole
