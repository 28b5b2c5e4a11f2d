// A body alone among tiles, for movers.
#pragma once

#include "vole/scene/movers/body_motion.hpp"
#include "vole/world/body.hpp"

struct Alone {
  vole::CollisionWorld world;
  vole::Moving moving{world, {}};

  explicit Alone(const vole::SolidGrid& grid, const vole::Body& body = {}) {
    world.set_tiles(&grid);
    moving.body.box = body.box({0, 0});
  }
};
