// What of a level's cells is in the way of a lamp's light.
#pragma once

#include "vole/draw/lit_area.hpp"
#include "vole/physics/solid_grid.hpp"

namespace vole {

class CellWalls {
 public:
  // Adds the sides that light can fall on, of cells nearer than `reach` along x and y, as seen from the lamp, in pixels.
  void add(const SolidGrid& solid, Vec2 lamp, float reach, std::vector<Wall>& walls);

 private:
  void look(const SolidGrid& solid, Vec2 from, Vec2 to);
  // The sides of its cell that what is there covers; all of them when it is full.
  std::uint8_t covered(int x, int y) const { return covered_[static_cast<std::size_t>(y * size_.x + x)]; }
  // nullptr for what is full, casts no shadow, or is not there.
  const CellForm* part(int x, int y) const;
  void add_flat_sides(std::vector<Wall>& walls) const;
  void add_upright_sides(std::vector<Wall>& walls) const;
  void add_part(int x, int y, std::vector<Wall>& walls);

  IVec2 tile_{16, 16};
  const SolidGrid* solid_ = nullptr;
  IVec2 first_{0, 0}, size_{0, 0};  // of the cells that are looked at, one more on each side
  std::vector<std::uint8_t> covered_;
  bool any_parts_ = false;
  LightCorner origin_;  // of the first cell, from the lamp
  std::vector<Wall> outline_;
};

// The sides of a polygon whose corners go either way around, so that what is inside lies to the right.
template <class Corners>
void add_outline(const Corners& corners, LightCorner at, std::vector<Wall>& walls) {
  const auto corner = [](Vec2 of) {
    return LightCorner{static_cast<double>(of.x), static_cast<double>(of.y)};
  };
  double area = 0;
  const std::size_t count = corners.size();
  for (std::size_t i = 0; i < count; ++i) {
    const LightCorner a = corner(corners[i]), b = corner(corners[(i + 1) % count]);
    area += a.x * b.y - a.y * b.x;
  }
  for (std::size_t i = 0; i < count; ++i) {
    const Wall wall{corner(corners[i]) + at, corner(corners[(i + 1) % count]) + at};
    walls.push_back(area > 0 ? wall : Wall{wall.to, wall.from});
  }
}

}  // namespace vole
