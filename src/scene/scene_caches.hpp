// What was found once and is kept, also from one scene to the next of the same run: so a scene that is restored or wound back does
// not look for all of it in one tick. None of it decides anything: each is found anew wherever it is missing.
#pragma once

#include <deque>
#include <map>
#include <memory>
#include <vector>

#include "scene/minds/mind_ledges.hpp"
#include "scene/minds/mind_ways.hpp"
#include "scene/pictures/scene_light.hpp"
#include "vole/asset/picture.hpp"
#include "vole/base/field.hpp"
#include "vole/world/component_types.hpp"

namespace vole {

struct Track;

// What each tile of the level shows.
struct TileFrames {
  std::shared_ptr<const Level> of;
  std::vector<Frame> frames;

  void show(const std::shared_ptr<const Level>& level, std::int64_t ticks, int ticks_per_second);
};

// A field that a track shows otherwise while a picture is drawn.
struct ShownField {
  Entity entity;
  BoundField bound;
  FieldRef::Bytes own{};
};

struct SceneCaches {
  MindLedges ledges;
  MindWays ways;
  SceneLight light;
  std::deque<SceneLight> lights_of_views;  // which draw lists point into
  TileFrames tile_frames;
  // The fields of each track that was shown.
  std::map<const Track*, std::vector<BoundField>> track_fields;
  // Memory of one picture, which is used again.
  std::vector<ShownField> shown_fields;
};

}  // namespace vole
