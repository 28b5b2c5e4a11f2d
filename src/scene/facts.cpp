#include "facts.hpp"

#include <cmath>

#include "scene/bodies/probing.hpp"
#include "vole/base/names.hpp"
#include "vole/world/grid_mover.hpp"
#include "vole/world/mind.hpp"
#include "vole/world/sprite.hpp"
#include "vole/world/top_mover.hpp"

namespace vole {

float OwnFacts::value(FactSource source) const {
  const Vec2 velocity = motion ? motion->velocity : Vec2{0, 0};
  const auto is = [&](SideState state) { return side && side->now.state == state ? 1.0f : 0.0f; };
  switch (source) {
    case FactSource::finished:
      return finished ? 1.0f : 0.0f;
    case FactSource::grounded:
      return !touching || touching->ground || from_above ? 1.0f : 0.0f;
    case FactSource::at_wall:
      return touching && touching->wall() ? 1.0f : 0.0f;
    case FactSource::vx:
      return velocity.x;
    case FactSource::vy:
      return velocity.y;
    case FactSource::speed:
      return from_above ? length_of(velocity) : std::abs(velocity.x);
    case FactSource::climbing:
      return is(SideState::climbing);
    case FactSource::swimming:
      return is(SideState::swimming);
    case FactSource::crouching:
      return is(SideState::crouching);
    case FactSource::dashing:
      return is(SideState::dashing);
    case FactSource::sliding:
      return is(SideState::sliding);
    case FactSource::gliding:
      return is(SideState::gliding);
    case FactSource::game:
      break;
  }
  return 0;
}

bool goes_from_above(const Entities& entities, Entity entity) {
  return entities.has<TopMover>(entity) || entities.has<GridMover>(entity);
}

OwnFacts own_facts(const Tick& tick, Entity entity) {
  const Entities& entities = tick.world.entities;
  const Sprite* const sprite = entities.find<Sprite>(entity);
  return {entities.find<Motion>(entity), entities.find<Touching>(entity),
          sprite && sprite->playhead().finished(tick.setting.ticks_per_second),
          goes_from_above(entities, entity), entities.find<SideMover>(entity)};
}

float fact_of_probe(const Tick& tick, Entity entity, const Probe& probe) {
  return finds_something(tick.stage.solids().world(), tick.stage.categories(), probe, entity,
                         tick.stage.get<Pose>(entity))
             ? 1.0f
             : 0.0f;
}

float fact_of(const Tick& tick, Entity entity, const OwnFacts& own, std::string_view name) {
  if (const FactSource source = fact_source(name); source != FactSource::game) return own.value(source);
  const Entities& entities = tick.world.entities;
  if (const Probes* const probes = entities.find<Probes>(entity))
    if (const auto* const item = find_named(probes->all, name))
      return fact_of_probe(tick, entity, item->value);
  if (const Mind* const mind = entities.find<Mind>(entity))
    if (const MindPart* const part = mind->deciding(); part && part->name == name) return 1;
  const Sprite* const sprite = entities.find<Sprite>(entity);
  const int known = sprite && sprite->sheet() ? sprite->sheet()->rules.find_fact(name) : -1;
  return known < 0 ? 0 : sprite->playing.facts[static_cast<std::size_t>(known)];
}

}  // namespace vole
