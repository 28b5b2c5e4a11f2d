#include "selected_things.hpp"

#include "vole/level/kinds.hpp"
#include "vole/world/met_pair.hpp"
#include "vole/world/shapes.hpp"
#include "vole/world/zone.hpp"

namespace vole {

bool fits(const Stage& stage, Entity entity, const ThingSelector& which) {
  const Entities& entities = stage.entities();
  switch (which.what) {
    case ThingSelector::What::kind:
      return stage.kind_of(entity) == which.name;
    case ThingSelector::What::tag: {
      const Tags* const tags = entities.find<Tags>(entity);
      return tags && tags->has(which.name);
    }
    case ThingSelector::What::category: {
      const Body* const body = entities.find<Body>(entity);
      return body && body->category.value == which.name;
    }
    case ThingSelector::What::shape: {
      const Shapes* const shapes = entities.find<Shapes>(entity);
      return shapes && shapes->find(which.name) < shapes->list.size();
    }
    case ThingSelector::What::zone: {
      const Zone* const zone = entities.find<Zone>(entity);
      return zone && zone->name == which.name;
    }
  }
  return false;
}

std::uint32_t shape_meant(const Stage& stage, Entity entity, const ThingSelector& which) {
  if (which.what != ThingSelector::What::shape) return any_shape;
  const Shapes* const shapes = std::as_const(stage.entities()).find<Shapes>(entity);
  return shapes ? static_cast<std::uint32_t>(shapes->find(which.name)) : any_shape;
}

void expect_known(const Kinds& kinds, const ThingSelector& which) {
  switch (which.what) {
    case ThingSelector::What::kind:
      static_cast<void>(kinds.kind(which.name));
      break;
    case ThingSelector::What::tag:
      kinds.expect_tag(which.name);
      break;
    case ThingSelector::What::category:
      kinds.categories.number(which.name);
      break;
    case ThingSelector::What::shape:
      kinds.expect_shape(which.name);
      break;
    case ThingSelector::What::zone:
      break;
  }
}

}  // namespace vole
