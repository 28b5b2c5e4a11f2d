#include "vole/world/zone.hpp"

#include "vole/base/names.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/world/body.hpp"
#include "vole/world/pose.hpp"
#include "vole/world/shapes.hpp"
#include "vole/world/world.hpp"

namespace vole {
namespace {

void shape_zone(Entities& entities, Entity entity, const LevelZone& zone) {
  Body body;
  body.size = zone.area.size;
  body.use = BodyUse::sensor;
  const Vec2 at = on_lattice(zone.area.at + Vec2{zone.area.size.x / 2, zone.area.size.y});
  entities.add(entity, body);
  entities.remove<Shapes>(entity);
  if (!zone.corners.empty()) {
    Shapes shapes;
    for (std::vector<Vec2>& part : cut_polygon(zone.corners)) {
      for (Vec2& corner : part) corner -= at;
      ShapeText shape;
      shape.corners = std::move(part);
      shapes.list.push_back({std::move(shape), zone.where});
    }
    entities.add(entity, shapes);
  }
  entities.add(entity, Pose{at, at});
}

}  // namespace

void put_zones(World& world) {
  Entities& entities = world.entities;
  static const std::vector<LevelZone> none;
  const std::vector<LevelZone>& zones = world.level ? world.level.file().zones : none;
  std::vector<bool> there(zones.size(), false);
  entities.visit<Zone>([&](Entity entity, const Zone& zone) {
    const std::size_t index = index_named(zones, zone.name);
    if (index == zones.size()) return entities.remove(entity);
    there[index] = true;
    shape_zone(entities, entity, zones[index]);
  });
  for (std::size_t i = 0; i < zones.size(); ++i) {
    if (there[i]) continue;
    const Entity entity = entities.create();
    entities.add(entity, Zone{zones[i].name});
    shape_zone(entities, entity, zones[i]);
  }
}

}  // namespace vole
