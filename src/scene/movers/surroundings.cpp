#include "vole/scene/movers/surroundings.hpp"

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

const Ladder* ladder_at(const MoverTurn& turn, Vec2 point) {
  return tile_value<Ladder>(turn, point);
}

// Of the thing that it stands on, or of the tile.
const Belt* belt_below(const MoverTurn& turn, const std::optional<IVec2>& cell) {
  if (const Entity thing = turn.touching.ground_thing; thing && turn.entities)
    return turn.entities->find<Belt>(thing);
  return cell ? turn.level->find_anywhere<Belt>(*cell) : nullptr;
}

Vec2 under(const Rect& box, float by) {
  return {box.at.x + box.size.x / 2, box.bottom() + by};
}

}  // namespace

Surroundings seen_from_side(const MoverTurn& turn) {
  Surroundings around;
  const std::optional<IVec2> cell = cell_below(turn);
  if (cell) around.friction = turn.level->friction(*cell);
  if (const Belt* const belt = belt_below(turn, cell)) around.carried.x = belt->speed.x;
  const Rect box = turn.box();
  around.liquid = liquid_at(turn, box.at + box.size * 0.5f);
  around.ladder = ladder_in_reach(turn);
  around.ladder_below = ladder_at(turn, under(box, 0.5f));
  return around;
}

Surroundings seen_from_above(const MoverTurn& turn) {
  Surroundings around;
  if (!in_level(turn)) return around;
  around.friction = turn.level->friction_of_floor(turn.level->cell_at(turn.pose.at));
  if (const Belt* const belt = tile_value<Belt>(turn, turn.pose.at)) around.carried += belt->speed;
  around.liquid = liquid_at(turn, turn.pose.at);
  if (around.liquid) around.carried += around.liquid->current;
  return around;
}

const Liquid* liquid_at(const MoverTurn& turn, Vec2 point) {
  return tile_value<Liquid>(turn, point);
}

const Ladder* ladder_in_reach(const MoverTurn& turn) {
  const Rect box = turn.box();
  const Ladder* const ladder = ladder_at(turn, under(box, -0.01f));
  return ladder ? ladder : ladder_at(turn, box.at + box.size * 0.5f);
}

}  // namespace vole
