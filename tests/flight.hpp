// Bodies of all shapes by chance, and a flight of many of them whose end is known to the last bit.
#pragma once

#include <cmath>
#include <memory>
#include <vector>

#include "vole/base/hash.hpp"
#include "vole/base/random.hpp"
#include "vole/physics/collision_world.hpp"
#include "vole/physics/subpixel.hpp"

// A whole number from 0 on, less than the count.
inline int number_below(vole::Random& chance, int count) {
  return static_cast<int>(chance.below(static_cast<std::uint32_t>(count)));
}

inline vole::Shape random_shape(vole::Random& chance, float size) {
  const auto at = [&] { return vole::Vec2{chance.within(-size, size), chance.within(-size, size)}; };
  switch (number_below(chance, 4)) {
    case 0: {
      const vole::Vec2 middle = at() * 0.3f;
      return vole::Shape::circle(middle, chance.within(0.3f, 1) * size);
    }
    case 1: {
      // One after the other: compilers evaluate arguments in orders of their own.
      const vole::Vec2 from = at(), to = at() + vole::Vec2{0.5f, 1};
      return vole::Shape::capsule(from, to, chance.within(0.2f, 0.6f) * size);
    }
    case 2: {
      const float w = chance.within(0.3f, 1) * size, h = chance.within(0.3f, 1) * size;
      const vole::Vec2 corners[] = {{-w, 0}, {0, -h}, {w, 0}, {w * 0.5f, h}};
      return vole::Shape::polygon(corners).turned(chance.within(0, 360));
    }
    default:
      return vole::Shape::box({{-size * 0.5f, -size}, {size * chance.within(0.3f, 1), size}});
  }
}

inline vole::CollisionBody random_body(vole::Random& chance, vole::Vec2 area, float size) {
  vole::CollisionBody body;
  body.at = vole::on_lattice({chance.within(0, area.x), chance.within(0, area.y)});
  body.box = {vole::on_lattice({chance.within(-size, 0), chance.within(-size, 0)}),
              vole::on_lattice({chance.within(0.3f, 1) * size, chance.within(0.3f, 1) * size})};
  if (chance.chance(0.6f)) {
    auto shapes = std::make_shared<vole::ShapeList>(1, random_shape(chance, size));
    if (chance.chance(0.3f)) shapes->push_back(random_shape(chance, size).moved_by({size, 0}));
    body.shapes = shapes;
    if (chance.chance(0.2f)) body.sensor_shapes = static_cast<std::uint32_t>(number_below(chance, 4));
    if (chance.chance(0.2f)) body.off_shapes = static_cast<std::uint32_t>(number_below(chance, 4));
  }
  body.category = static_cast<std::uint8_t>(number_below(chance, 4));
  body.use = static_cast<vole::BodyUse>(number_below(chance, 3));
  return body;
}

inline vole::SolidGrid random_grid(vole::Random& chance, vole::IVec2 cells, float share,
                                   vole::IVec2 cell = {16, 16}) {
  vole::SolidGrid grid(cells, cell, {false, false, false, false});
  for (int y = 0; y < cells.y; ++y)
    for (int x = 0; x < cells.x; ++x)
      if (chance.chance(share))
        grid.set({x, y}, vole::CellForm(static_cast<vole::TileShape>(number_below(chance, 11)), cell));
  return grid;
}

// Bodies of all shapes that fly about among tiles and each other; a sum of all positions, to the last bit.
inline std::uint64_t flight_of_many(int ticks) {
  vole::Random chance(47);
  const vole::SolidGrid grid = random_grid(chance, {90, 70}, 0.12f);
  vole::CollisionWorld world;
  world.set_tiles(&grid);
  std::vector<vole::Vec2> velocities;
  for (std::uint32_t id = 0; id < 500; ++id) {
    vole::CollisionBody body = random_body(chance, {1440, 1120}, 9);
    body.use = id % 5 == 0 ? vole::BodyUse::sensor : vole::BodyUse::solid;
    world.put(id, body);
    velocities.push_back({chance.within(-4, 4), chance.within(-4, 4)});
  }
  vole::Hash hash;
  for (int tick = 0; tick < ticks; ++tick)
    for (std::uint32_t id = 0; id < 500; ++id) {
      vole::CollisionBody body = world.body(id);
      const vole::MoveRules rules{.blocked_by = id % 3 == 0 ? 1u : 7u, .self = id};
      const vole::BodyMoved moved =
          tick % 2 == 0 ? world.slide(body, velocities[id], rules) : world.fly(body, velocities[id], rules);
      if (moved.held()) velocities[id] = moved.kept(velocities[id]) - velocities[id] * 0.5f;
      velocities[id] += vole::Vec2{chance.within(-0.2f, 0.2f), chance.within(-0.2f, 0.2f)};
      if (!(std::abs(velocities[id].x) + std::abs(velocities[id].y) < 12))
        velocities[id] = velocities[id] * 0.5f;
      body.at = moved.at;
      if (body.at.x < -50 || body.at.x > 1500 || body.at.y < -50 || body.at.y > 1200) body.at = {720, 560};
      if (body.shapes && tick % 16 == 0) {
        auto turned = std::make_shared<vole::ShapeList>();
        for (const vole::Shape& shape : *body.shapes) turned->push_back(shape.turned(15));
        body.shapes = turned;
      }
      world.put(id, body);
      hash.add(body.at.x);
      hash.add(body.at.y);
    }
  return hash.value();
}

// What it comes to, everywhere.
inline constexpr std::uint64_t sum_after_300 = 0xff4b267b240a838eu;
inline constexpr std::uint64_t sum_after_3600 = 0xec03dae95c6d7fe5u;
