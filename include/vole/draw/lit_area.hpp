// What a lamp lights between walls: a polygon around it, up to the first wall in each direction.
//
//   std::vector<Wall> walls{{{0, 0}, {16, 0}}};         // what is solid lies to the right of the way from one end to the other
//   LitArea area;
//   area.find({8.5, -20.5}, 48, walls, {.depth = 4});
//   area.corners();                                     // in order around the lamp
//
// Light goes a little way into a wall, so that its surface is seen. Walls may cross.
// Method: a sweep around the lamp that keeps the walls under its ray, as for a visibility polygon (T. Asano, "An efficient
// algorithm for finding the visibility polygon for a polygonal region with holes", 1985).
#pragma once

#include <cstdint>
#include <span>
#include <vector>

#include "vole/base/vec.hpp"

namespace vole {

struct LightCorner {
  double x = 0, y = 0;

  friend LightCorner operator+(LightCorner a, LightCorner b) { return {a.x + b.x, a.y + b.y}; }
  friend LightCorner operator-(LightCorner a, LightCorner b) { return {a.x - b.x, a.y - b.y}; }
  friend LightCorner operator*(LightCorner a, double by) { return {a.x * by, a.y * by}; }
  friend bool operator==(const LightCorner&, const LightCorner&) = default;
};

struct Wall {
  LightCorner from, to;
};

struct Beam {
  float depth = 4;      // how far light goes into walls
  float cone = 360;     // degrees that the lamp shines in
  float direction = 0;  // of the cone's middle, clockwise; 0: to the right

  friend bool operator==(const Beam&, const Beam&) = default;
};

class LitArea {
 public:
  // Only what is nearer than `reach` matters, along x and y.
  void find(LightCorner lamp, float reach, std::span<const Wall> walls, const Beam& beam);
  // Of what is lit, at least as far as the reach goes.
  const std::vector<LightCorner>& corners() const { return corners_; }

 private:
  // A wall seen from the lamp, in the direction in which the sweep goes.
  struct Seen {
    LightCorner start, end;
    double depth = 0;
  };
  struct Event {
    int half = 0;  // of the circle; before and after all: where a wall was cut in two
    LightCorner at;
    std::uint32_t wall = 0;
    bool starts = false;
  };

  void add(LightCorner from, LightCorner to, double depth);
  void add_seen(LightCorner start, LightCorner end, double depth, int first_half, int last_half);
  void sweep();
  void light_between(LightCorner from, LightCorner to);
  void light_up_to(const Seen& wall, LightCorner from, LightCorner to);
  bool shines(LightCorner between_from, LightCorner between_to) const;
  void add_cone(const Beam& beam);

  std::vector<Seen> walls_;
  std::vector<Event> events_;
  std::vector<std::uint32_t> active_;
  std::vector<LightCorner> corners_;
  LightCorner lamp_;
  bool has_cone_ = false, wide_cone_ = false;
  LightCorner cone_start_, cone_end_;
};

}  // namespace vole
