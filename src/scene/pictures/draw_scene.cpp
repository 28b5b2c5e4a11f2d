// What a running scene shows. It changes nothing: fields that tracks show otherwise have their own bytes again before
// the picture is handed on.
#include <algorithm>

#include "draw_said.hpp"
#include "placement.hpp"
#include "scene/bodies/level_edges.hpp"
#include "scene/scene_caches.hpp"
#include "shown_fields.hpp"
#include "vole/level/level.hpp"
#include "vole/scene/pictures/drawing.hpp"
#include "vole/scene/pictures/level_drawing.hpp"
#include "vole/scene/running_scene.hpp"
#include "vole/world/sprite.hpp"
#include "xray_drawing.hpp"

namespace vole {

void TileFrames::show(const std::shared_ptr<const Level>& level, std::int64_t ticks, int ticks_per_second) {
  if (of != level) frames = level->tiles.frames();
  of = level;
  level->tiles.put_moving(frames, ticks, ticks_per_second);
}

namespace {

// Once more on the other side, while it crosses an edge of the level behind which it comes in again.
void add_other_sides(DrawList& list, LayerId into, const World& world, Entity entity,
                     const PictureItem& item) {
  for (const Vec2 by : other_sides(world, entity)) {
    if (by == Vec2{0, 0}) continue;
    PictureItem other = item;
    other.at += by;
    list.add(into, other);
  }
}

void add_sprite(DrawList& list, LayerId into, const World& world, Entity entity, const Sprite& sprite,
                float share, int ticks_per_second) {
  const int index = sprite.frame(ticks_per_second);
  if (index < 0) return;
  const std::size_t layers = world.level ? world.level.file().layers.size() : 1;
  const std::size_t layer = std::min(sprite.links.layer, layers - 1);
  const LayerLook look = world.level ? world.level.look(layer) : LayerLook{};
  if (!look.visible) return;
  const Frame frame = sprite.sheet()->posed(index, sprite.playhead().clip());
  const Placement place = placement(world, entity, share, Tracks::shown, ticks_per_second);
  PictureItem item = show(frame, place.at);
  item.scale = place.scale;
  if (sprite.size) item.scale *= *sprite.size / Vec2(std::max(frame.size.x, 1), std::max(frame.size.y, 1));
  item.rotation = place.rotation;
  const bool is_card = sprite.sheet()->missing;  // the card for what is missing has its name on it
  item.mirrored = place.mirrored && !is_card;
  item.upside_down = place.upside_down && !is_card;
  item.tint = place.tint;
  item.opacity = place.opacity;
  item.blend = sprite.blend;
  item.flash = sprite.flash;
  item.depth = sprite.depth;
  shade(item, look);
  if (world.level && world.level.file().layers[layer].order == LayerOrder::feet) item.depth += place.at.y;
  list.add(into, item);
  if (world.entities.any<LevelEdge>()) add_other_sides(list, into, world, entity, item);
}

}  // namespace

// Those that play a track are watched, last of all and in their order.
void RunningScene::draw_shown(Drawing& drawing) const {
  std::size_t next = cues_.watched().size();
  for (const std::unique_ptr<ShownPart>& part : shown_.parts()) {
    const std::int64_t since = part->track() ? world_.watched[next++].changed : -1;
    part->draw(drawing, since < 0 ? -1 : world_.ticks - since);
  }
}

void RunningScene::draw_stage(DrawList& list, float share, Before before) const {
  if (world_.level)
    setting_.caches->tile_frames.show(world_.level.version(), world_.ticks, setting_.ticks_per_second);
  draw_view(list, world_.camera, nullptr, setting_.caches->light, share, before);
}

void RunningScene::draw_views(DrawList& list, float share) const {
  if (setting_.caches->lights_of_views.size() < world_.views.size())
    setting_.caches->lights_of_views.resize(world_.views.size());
  for (std::size_t i = 0; i < world_.views.size(); ++i) {
    draw_view(list, world_.views[i].camera, &world_.views[i], setting_.caches->lights_of_views[i], share,
              Before::sky);
    list.end_view();
  }
}

// What a camera sees; `only` may leave some of it out.
void RunningScene::draw_view(DrawList& list, const Camera& camera, const ShownView* only, SceneLight& light,
                             float share, Before before) const {
  const LevelNow& level = world_.level;
  View view = camera.view(share);
  view.sky = before == Before::sky ? sky() : clear;
  list.start_view(view);
  const std::size_t layers = level ? level.file().layers.size() : 1;
  const auto first = static_cast<LayerId>(list.layers());
  const auto shows = [&](std::size_t layer) {
    if (!only || only->layers.empty() || !level) return true;
    const std::string& name = level.file().layers[layer].name;
    return std::find(only->layers.begin(), only->layers.end(), name) != only->layers.end();
  };
  const Vec2 origin = level ? Vec2(level.origin() * level.tile_size()) : Vec2{0, 0};
  for (std::size_t i = 0; i < layers; ++i) {
    const Vec2 parallax = level ? level.file().layers[i].parallax : Vec2{1, 1};
    const LayerId id = list.add_layer(camera.corner(parallax, share, origin));
    if (level && shows(i))
      draw_level_layer(list, id, level.file(), level.file().layers[i], level.look(i), level.tiles(i),
                       setting_.caches->tile_frames.frames);
  }
  world_.entities.visit<Sprite, Pose>([&](Entity entity, const Sprite& sprite, const Pose&) {
    const std::size_t layer = std::min(sprite.links.layer, layers - 1);
    if (shows(layer))
      add_sprite(list, static_cast<LayerId>(first + layer), world_, entity, sprite, share,
                 setting_.ticks_per_second);
  });
  if (!only || only->light) add_light(list, first, camera, light, share);
}

// Over the last layer that is lit.
void RunningScene::add_light(DrawList& list, LayerId first, const Camera& camera, SceneLight& light,
                             float share) const {
  const LevelNow& level = world_.level;
  if (!level) return;
  if (has_shades(world_)) stage_.update_bodies();
  if (!light.find(world_, camera, stage_.solids(), share, setting_.ticks_per_second)) return;
  const std::vector<LevelLayer>& layers = level.file().layers;
  const auto lit =
      std::count_if(layers.begin(), layers.end(), [](const LevelLayer& layer) { return layer.lit; });
  if (lit > 0) list.add(static_cast<LayerId>(first + lit - 1), light.lighting());
}

Colour RunningScene::sky() const {
  return world_.level ? world_.level.file().sky : world_.background;
}

void RunningScene::draw(DrawList& list, float share, XrayParts xray, Before before) {
  const ShownFields shown(world_, setting_);
  draw_stage(list, share, before);
  XrayRoles seen;
  if (xray.any()) seen = draw_xray(list, *this, xray, share);
  list.end_view();
  draw_views(list, share);
  const LayerId above = list.add_layer({0, 0});
  if (xray.has(XrayPart::legend)) draw_xray_legend(list, seen);
  if (world_.shows_said) draw_said(list, above, world_, share, setting_.ticks_per_second);
  Drawing drawing(stage_, list, above, share);
  draw_shown(drawing);
  scene_->draw(drawing);
}

}  // namespace vole
