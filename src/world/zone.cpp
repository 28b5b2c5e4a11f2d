#include "vole/world/zone.hpp"

#include "vole/base/names.hpp"
#include "vole/level/level.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/world/body.hpp"
#include "vole/world/pose.hpp"
#include "vole/world/shapes.hpp"
#include "vole/world/world.hpp"

namespace vole {
namespace {

void shape_zone(Entities& entities, Entity entity, const LevelZone& zone, Vec2 offset) {
  Body body;
  body.size = zone.area.size;
  body.use = BodyUse::sensor;
  const Vec2 at = on_lattice(zone.area.at + offset + Vec2{zone.area.size.x / 2, zone.area.size.y});
  entities.add(entity, body);
  entities.remove<Shapes>(entity);
  if (!zone.corners.empty()) {
    Shapes shapes;
    for (std::vector<Vec2>& part : cut_polygon(zone.corners)) {
      for (Vec2& corner : part) corner += offset - at;
      ShapeText shape;
      shape.corners = std::move(part);
      shapes.list.push_back({std::move(shape), zone.where});
    }
    entities.add(entity, shapes);
  }
  entities.add(entity, Pose{at, at});
}

}  // namespace

void put_zones(World& world, std::uint32_t piece) {
  Entities& entities = world.entities;
  static const std::vector<LevelZone> none;
  const PutPiece* const its = world.level ? world.level.piece(piece) : nullptr;
  const bool has_own = world.level && piece == 0 && !world.level.own_part_left();
  const std::vector<LevelZone>& zones = its ? its->file().zones : has_own ? world.level.file().zones : none;
  const Vec2 offset = world.level ? world.level.offset(piece) : Vec2{0, 0};
  std::vector<bool> there(zones.size(), false);
  entities.visit<Zone>([&](Entity entity, const Zone& zone) {
    if (zone.piece != piece) return;
    const std::size_t index = index_named(zones, zone.name);
    if (index == zones.size()) return entities.remove(entity);
    there[index] = true;
    shape_zone(entities, entity, zones[index], offset);
  });
  for (std::size_t i = 0; i < zones.size(); ++i) {
    if (there[i]) continue;
    const Entity entity = entities.create();
    entities.add(entity, Zone{zones[i].name, piece});
    shape_zone(entities, entity, zones[i], offset);
  }
}

void remove_zones(World& world, std::uint32_t piece) {
  world.entities.visit<Zone>([&](Entity entity, const Zone& zone) {
    if (zone.piece == piece) world.entities.remove(entity);
  });
}

}  // namespace vole
