// The lanes of a grid_mover: lines through the middles of cells, along which the middle of a body goes.
#pragma once

#include <cstdint>

#include "vole/base/vec.hpp"
#include "vole/physics/collision_world.hpp"
#include "vole/world/grid_mover.hpp"
#include "vole/world/level_edge.hpp"
#include "vole/world/level_now.hpp"

namespace vole {

// Where something is on them, in subpixels past the junction before it.
struct OnLanes {
  std::int64_t x = 0, y = 0;
  bool on_junction() const { return x == 0 && y == 0; }
  bool beside() const { return x != 0 && y != 0; }
};
// The middle of a body from its position.
Vec2 middle_of(const CollisionBody& body);
OnLanes on_lanes(const GridMover& mover, Vec2 middle);

// Whether there is room for a body in the next cell one of the four ways from a junction, at which `body.at` is; also where it comes in
// again behind an edge of the level.
struct LaneRoom {
  const CollisionWorld& world;
  const MoveRules& rules;
  const LevelEdge* edge = nullptr;
  const LevelNow* level = nullptr;

  bool is_open(const GridMover& mover, CollisionBody body, IVec2 way) const;
};

}  // namespace vole
