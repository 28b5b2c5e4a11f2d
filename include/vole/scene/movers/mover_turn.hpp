// What a mover works on: one thing, for one tick. A mover of a game's own is a described struct and a function:
//
//   void skate(vole::MoverTurn& turn, Skater& skater) {
//     turn.motion.velocity += turn.intent.direction * skater.push * turn.seconds;
//     turn.go();                                        // by its velocity; what is solid holds it
//   }
//   game.moves<Skater>("skater", skate);                // and in kinds.toml: skater = { push = 200 }
//
// From then on it is a mover as the library's are: pilots steer it, and its numbers are checked, tuned, saved and compared.
#pragma once

#include "vole/input/intent.hpp"
#include "vole/scene/movers/body_motion.hpp"
#include "vole/world/body.hpp"
#include "vole/world/entities.hpp"

namespace vole {

class LevelNow;
class RowPushing;
struct LevelEdge;
struct Sprite;

struct MoverTurn {
  Intent intent;
  float seconds = 0;  // of the tick
  Moving& moving;
  Motion& motion;
  Touching& touching;
  Pose& pose;
  // What it has besides, and where it is; nullptr where there is none.
  Body* body = nullptr;
  Sprite* sprite = nullptr;
  const LevelEdge* edge = nullptr;
  const LevelNow* level = nullptr;
  const Entities* entities = nullptr;
  RowPushing* pushing = nullptr;  // what gives way from cell to cell

  // Where the box around its body is now.
  Rect box() const { return moving.body.box.moved_by(pose.at); }
  // Moves the body by so many pixels; along what holds it, it slides. Says in `touching` what was met.
  BodyMoved move(Vec2 by) { return move_body(moving, by, motion, touching, pose); }
  // The same by its velocity, which loses what goes into what holds it.
  BodyMoved go() {
    const BodyMoved moved = move(motion.velocity * seconds);
    motion.velocity = moved.kept(motion.velocity);
    return moved;
  }
};

}  // namespace vole
