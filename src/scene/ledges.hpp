// Where in a level a body could stand.
#pragma once

#include "vole/scene/reach.hpp"

namespace vole {

struct LedgeSeeker {
  const CollisionWorld& world;
  CollisionBody body;
  MoveRules rules;
  const LevelNow& level;
  float steepest = 50;  // degrees

  // In columns that are so many pixels apart; from top to bottom, those beside each other as one.
  std::vector<Ledge> ledges(float apart) const;

 private:
  std::vector<Vec2> spots_in_column(float x) const;
};

}  // namespace vole
