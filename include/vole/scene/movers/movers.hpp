// All movers of a game: what turns intent into motion. The library's are here from the start.
#pragma once

#include <functional>
#include <vector>

#include "vole/input/intent.hpp"
#include "vole/world/body.hpp"
#include "vole/world/entities.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/pose.hpp"

namespace vole {

struct MoverTurn;

class Movers {
 public:
  // The library's.
  Movers();

  template <Described T>
  void add(void (*move)(MoverTurn& turn, T& mover)) {
    all_.push_back([move](Entities& entities, const GiveTurn& give) {
      entities.visit<T, Intent, Body, Motion, Touching, Pose>(
          [&](Entity thing, T& mover, const Intent& intent, Body& body, Motion& motion, Touching& touching,
              Pose& pose) {
            give(thing, {intent, body, motion, touching, pose},
                 [move, &mover](MoverTurn& turn) { move(turn, mover); });
          });
    });
  }

  // What a thing that moves has.
  struct Parts {
    const Intent& intent;
    Body& body;
    Motion& motion;
    Touching& touching;
    Pose& pose;
  };
  using Turn = std::function<void(MoverTurn& turn)>;
  using GiveTurn = std::function<void(Entity thing, const Parts& parts, const Turn& turn)>;
  // Calls give(thing, its parts, what moves it) for one after the other: by their movers, in the order in which they got them.
  void visit(Entities& entities, const GiveTurn& give) const;

 private:
  std::vector<std::function<void(Entities&, const GiveTurn&)>> all_;
};

}  // namespace vole
