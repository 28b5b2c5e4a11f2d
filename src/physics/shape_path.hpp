// Shapes that are no boxes, among what is solid: as box_motion.hpp, but in doubles.
#pragma once

#include <span>

#include "vole/physics/collision_world.hpp"

namespace vole {

// A shape that is in the way: of a body, or else of a tile.
struct SolidShape {
  const Shape* shape = nullptr;
  Vec2 at{0, 0};
  OneWay one_way = OneWay::no;
  BodyId body = no_body;
  IVec2 cell{0, 0};
};

// All outlive what is moved among them.
struct ShapeSurroundings {
  const SolidGrid& grid;
  CategoryMask mask;                   // of the categories of tiles that hold
  std::span<const SolidShape> shapes;  // of bodies
  bool through_one_way = false;        // tiles
};

class ShapeMotion {
 public:
  ShapeMotion(const ShapeSurroundings& around, std::span<const Shape> shapes, Vec2 at, double steepest);

  BodyMoved slide(Vec2 motion) { return go_along(motion, false), moved_; }
  BodyMoved fly(Vec2 motion);
  BodyMoved walk(float length);
  Touch ground() const;

  struct Hit {
    bool any = false;
    ShapeHit hit;
    BodyId body = no_body;
    IVec2 cell{0, 0};  // of a tile
  };
  // What is met first.
  Hit sweep(Vec2 motion) const;

 private:
  bool is_ground(Vec2 normal) const;
  void meet(const SolidShape& solid, Vec2 motion, Hit& first) const;
  void hold(const Hit& hit);
  Hit go(Vec2 motion);
  Vec2 go_along(Vec2 motion, bool lands);
  Touch walk_leg(const Touch& on, float way);

  ShapeSurroundings around_;
  std::span<const Shape> shapes_;
  Rect bounds_;  // of them, from their position
  double steepest_;
  BodyMoved moved_;
};

}  // namespace vole
