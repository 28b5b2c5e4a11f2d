#include "vole/world/zone.hpp"

#include "vole/base/names.hpp"
#include "vole/world/body.hpp"
#include "vole/world/pose.hpp"
#include "vole/world/world.hpp"

namespace vole {
namespace {

void shape_zone(Entities& entities, Entity entity, const Rect& area) {
  Body body;
  body.size = area.size;
  body.use = BodyUse::sensor;
  const Vec2 at = area.at + Vec2{area.size.x / 2, area.size.y};
  entities.add(entity, body);
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
    shape_zone(entities, entity, zones[index].area);
  });
  for (std::size_t i = 0; i < zones.size(); ++i) {
    if (there[i]) continue;
    const Entity entity = entities.create();
    entities.add(entity, Zone{zones[i].name});
    shape_zone(entities, entity, zones[i].area);
  }
}

}  // namespace vole
