#include "surroundings.hpp"

#include <array>

#include "vole/world/level_now.hpp"

namespace vole {
namespace {

bool in_level(const MoverTurn& turn) {
  return turn.level && *turn.level;
}

template <Described T>
const T* tile_value(const MoverTurn& turn, Vec2 point) {
  return in_level(turn) ? turn.level->find_anywhere<T>(turn.level->cell_at(point)) : nullptr;
}

// The cell of the solid tile that it stands on; none while it stands on a thing, or on nothing.
std::optional<IVec2> cell_below(const MoverTurn& turn) {
  if (!in_level(turn) || !turn.touching.ground || turn.touching.ground_thing) return {};
  const Rect box = turn.moving.body.bounds();
  const float below = box.bottom() + 0.5f;
  for (const float x : {box.left() + box.size.x / 2, box.left() + 0.5f, box.right() - 0.5f})
    if (const IVec2 cell = turn.level->cell_at({x, below}); turn.level->solid().solid(cell.x, cell.y))
      return cell;
  return {};
}

}  // namespace

float ground_friction(const MoverTurn& turn) {
  const std::optional<IVec2> cell = cell_below(turn);
  return cell ? turn.level->friction(*cell) : 1;
}

float belt_speed(const MoverTurn& turn) {
  const Belt* belt = nullptr;
  if (const Entity thing = turn.touching.ground_thing; thing && turn.entities)
    belt = turn.entities->find<Belt>(thing);
  else if (const std::optional<IVec2> cell = cell_below(turn))
    belt = turn.level->find_anywhere<Belt>(*cell);
  return belt ? belt->speed.x : 0;
}

Vec2 drift(const MoverTurn& turn) {
  Vec2 speed{0, 0};
  if (const Belt* belt = tile_value<Belt>(turn, turn.pose.at)) speed += belt->speed;
  if (const Liquid* liquid = tile_value<Liquid>(turn, turn.pose.at)) speed += liquid->current;
  return speed;
}

float friction_below(const MoverTurn& turn) {
  return in_level(turn) ? turn.level->friction_of_floor(turn.level->cell_at(turn.pose.at)) : 1;
}

const Liquid* liquid_at(const MoverTurn& turn, Vec2 point) {
  return tile_value<Liquid>(turn, point);
}

const Ladder* ladder_at(const MoverTurn& turn, Vec2 point) {
  return tile_value<Ladder>(turn, point);
}

}  // namespace vole
