// Tracks that change fields of components: only while a picture is drawn, so that nothing that reckons with a field
// ever sees a track, and nothing of it can be left behind.
#pragma once

#include "scene/scene_caches.hpp"
#include "vole/base/field.hpp"
#include "vole/scene/stage.hpp"
#include "vole/world/component_types.hpp"
#include "vole/world/world.hpp"

namespace vole {

// Shows the fields for as long as this lives.
class ShownFields {
 public:
  ShownFields(World& world, const StageSetting& setting);
  ~ShownFields();
  ShownFields(const ShownFields&) = delete;
  ShownFields& operator=(const ShownFields&) = delete;

 private:
  const BoundField& find(const Track& track, std::size_t field);
  void show(Entity entity, const Track& track, std::int64_t ticks, float strength);

  World& world_;
  const StageSetting& setting_;
  SceneCaches& caches_;
};

}  // namespace vole
