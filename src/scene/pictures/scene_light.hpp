// What the darkness of a level, its lamps and its walls come to on the canvas.
#pragma once

#include "cell_walls.hpp"
#include "scene/level_watch.hpp"
#include "vole/draw/light.hpp"
#include "vole/scene/bodies/solid_things.hpp"
#include "vole/world/world.hpp"

namespace vole {

// Whether any body casts a shadow.
bool has_shades(const World& world);

class SceneLight {
 public:
  // Memory is used again. False when nothing on the canvas is dark. The bodies must be up to date where any casts a shadow.
  bool find(const World& world, const Camera& camera, const SolidThings& bodies, float share,
            int ticks_per_second);
  const Lighting& lighting() const { return lighting_; }

 private:
  struct Sight {
    const World& world;
    IVec2 corner;
    IVec2 shown;  // pixels
    float share = 0;
    int ticks_per_second = 60;
  };

  // All that decides what a lamp lights, but for things.
  struct Surroundings {
    std::uint64_t cells = 0;  // another number for others
    IVec2 at{0, 0};           // its pixel in the level
    int reach = 0;
    bool shadows = false;
    Beam beam;

    friend bool operator==(const Surroundings&, const Surroundings&) = default;
  };
  struct Known {
    Surroundings around;
    std::vector<LightCorner> corners;
  };

  void find_dark(const Sight& view);
  void add_zones(const Sight& view, const std::vector<LevelZone>& zones, Vec2 offset);
  void find_shades(const Sight& view, const SolidThings& bodies);
  void add_lamp(const Sight& view, Entity entity);
  const std::vector<LightCorner>& lit_by(Entity entity, const Surroundings& around, const SolidGrid& solid);
  void add_shades(const Surroundings& around);

  Lighting lighting_;
  LitArea lit_;
  CellWalls cells_;
  std::vector<Wall> walls_;   // around one lamp
  std::vector<Wall> shades_;  // of things
  LevelWatch watch_;
  std::uint64_t cells_seen_ = 0;  // others than before, so often
  std::vector<Known> known_;      // by the lamp's index
};

}  // namespace vole
