// Things in a row that give way to one that goes from cell to cell: all at once and by the same, or not at all.
#pragma once

#include <optional>
#include <vector>

#include "vole/base/entity.hpp"
#include "vole/physics/collision_world.hpp"

namespace vole {

class Categories;
class Entities;
class SolidThings;

class RowPushing {
 public:
  RowPushing(Entities& entities, SolidThings& solids, const Categories& categories)
      : entities_(entities), solids_(solids), categories_(categories) {}

  using Row = std::vector<Entity>;
  // All that would be pushed when a body moves so far along an axis; also none. std::nullopt where it is more than `most`, or
  // where anything in the way does not give way.
  std::optional<Row> before(const CollisionBody& body, Vec2 by, const MoveRules& rules, int most) const;
  // Of the slowest, in pixels a second; no limit for none.
  float speed(const Row& row) const;
  // Seen from a point, on the way that somebody goes.
  bool is_ahead(const Row& row, Vec2 from, Vec2 way) const;
  // False where something has come into the way of one of them: then none has moved. `rules` are of who pushes.
  bool move(const Row& row, Vec2 by, const MoveRules& rules);

 private:
  bool add_what_meets(const CollisionBody& body, Vec2 by, const MoveRules& rules, BodyId pusher, Row& row,
                      int most) const;
  bool has_room(Entity thing, Vec2 by, const Row& row, BodyId pusher) const;

  Entities& entities_;
  SolidThings& solids_;
  const Categories& categories_;
};

}  // namespace vole
