#include "scene_light.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "placement.hpp"
#include "vole/base/hash.hpp"
#include "vole/base/trig.hpp"
#include "vole/draw/draw_list.hpp"
#include "vole/level/level.hpp"
#include "vole/scene/bodies/solid_things.hpp"
#include "vole/world/lamp.hpp"

namespace vole {
namespace {

// From day to the colour of the dark.
Colour dark_colour(const LevelLight& light, float darkness) {
  const auto part = [darkness](std::uint8_t dark) {
    return static_cast<std::uint8_t>(255.0f + (static_cast<float>(dark) - 255.0f) * darkness + 0.5f);
  };
  return {part(light.colour.r), part(light.colour.g), part(light.colour.b), 255};
}

Colour dimmed(Colour colour, float brightness) {
  const auto by = static_cast<std::uint8_t>(std::clamp(brightness, 0.0f, 1.0f) * 255 + 0.5f);
  return {multiply(colour.r, by), multiply(colour.g, by), multiply(colour.b, by), 255};
}

// Ten times a second another share, the same for everybody who looks.
float flicker_share(Entity entity, std::int64_t ticks, int ticks_per_second) {
  Hash hash;
  hash.add(std::uint64_t{entity.index});
  hash.add(ticks / std::max(ticks_per_second / 10, 1));
  return Random(hash.value()).within(0, 1);
}

LightCorner corner_of(Vec2 at) {
  return {static_cast<double>(at.x), static_cast<double>(at.y)};
}

// What is round as a polygon of 16 corners.
void add_shape(const Shape& shape, Vec2 at, std::vector<Wall>& walls) {
  if (shape.radius() <= 0) return add_outline(shape.corners(), corner_of(at), walls);
  std::array<Vec2, 16> corners;
  for (std::size_t i = 0; i < corners.size(); ++i) {
    const float degrees = static_cast<float>(i) * 22.5f;
    const Vec2 out{cos_degrees(degrees), sin_degrees(degrees)};
    Vec2 furthest = shape.corners()[0];
    for (const Vec2 corner : shape.corners())
      if (corner.x * out.x + corner.y * out.y > furthest.x * out.x + furthest.y * out.y) furthest = corner;
    corners[i] = furthest + out * shape.radius();
  }
  add_outline(corners, corner_of(at), walls);
}

}  // namespace

bool has_shades(const World& world) {
  bool any = false;
  world.entities.visit<Body>([&any](Entity, const Body& body) { any = any || body.shadow; });
  return any;
}

bool SceneLight::find(const World& world, const Camera& camera, const SolidThings& bodies, float share,
                      int ticks_per_second) {
  lighting_.clear();
  if (!world.level) return false;
  const IVec2 shown = camera.view(share).size;
  const Sight view{world, camera.corner({1, 1}, share), shown, share, ticks_per_second};
  find_dark(view);
  if (lighting_.dark == white && lighting_.areas.empty()) return false;
  find_shades(view, bodies);
  if (watch_.changed(world.level)) ++cells_seen_;
  world.entities.visit<Lamp>([&](Entity entity, const Lamp&) { add_lamp(view, entity); });
  return true;
}

void SceneLight::find_dark(const Sight& view) {
  const LevelNow& level = view.world.level;
  const LevelLight& light = level.file().light;
  lighting_.dark = dark_colour(light, level.darkness());
  lighting_.steps = light.steps;
  lighting_.dithered = light.dither;
  add_zones(view, level.zones(), {0, 0});
  for (const PutPiece& piece : level.pieces())
    add_zones(view, piece.file().zones, level.offset(piece.number));
}

void SceneLight::add_zones(const Sight& view, const std::vector<LevelZone>& zones, Vec2 offset) {
  for (const LevelZone& zone : zones) {
    if (!zone.darkness) continue;
    const Vec2 by = offset - Vec2(view.corner);
    DarkArea area{zone.area.moved_by(by), lighting_.corners.size(), zone.corners.size(),
                  dark_colour(view.world.level.file().light, *zone.darkness), zone.fade};
    if (!area.box.overlaps({{0, 0}, Vec2(view.shown)})) continue;
    for (const Vec2 corner : zone.corners) lighting_.corners.push_back(corner_of(corner + by));
    lighting_.areas.push_back(area);
  }
}

// The outlines of all bodies that cast a shadow, where they are drawn; in the level.
void SceneLight::find_shades(const Sight& view, const SolidThings& bodies) {
  shades_.clear();
  view.world.entities.visit<Body, Pose>([&](Entity entity, const Body& body, const Pose& pose) {
    if (!body.shadow || !bodies.has(entity)) return;
    const CollisionBody& its = bodies.body(entity);
    const Vec2 at = pose.shown_at(shown_share(view.world, entity, view.share));
    if (its.use == BodyUse::solid)
      its.visit_solid_shapes([&](const Shape& shape, std::uint32_t) { add_shape(shape, at, shades_); });
  });
}

void SceneLight::add_lamp(const Sight& view, Entity entity) {
  const World& world = view.world;
  const Lamp& lamp = *world.entities.find<Lamp>(entity);
  const float radius =
      lamp.radius * (1 - lamp.flicker * flicker_share(entity, world.ticks, view.ticks_per_second));
  if (!lamp.shines || !(radius >= 1)) return;
  const Placement place =
      placement_of_point(world, entity, lamp.point.value, lamp.offset, view.share, view.ticks_per_second);
  const LevelLight& light = world.level.file().light;
  LampItem item;
  item.at = IVec2{to_pixel(place.at.x), to_pixel(place.at.y)} - view.corner;
  item.glow = {static_cast<int>(std::min(radius, static_cast<float>(largest_lamp))),
               dimmed(lamp.colour, lamp.brightness), std::clamp(lamp.falloff, 0, 4), light.steps,
               light.dither};
  const IRect box{item.at - IVec2(item.glow.radius), IVec2(2 * item.glow.radius + 1)};
  if (!box.overlaps({{0, 0}, view.shown})) return;
  // Code may have made anything of its numbers.
  const float turn = (place.mirrored ? 180 - lamp.direction : lamp.direction) + place.rotation;
  Surroundings around;
  around.cells = cells_seen_;
  around.at = item.at + view.corner;
  around.reach = static_cast<int>(std::min(lamp.radius, static_cast<float>(largest_lamp))) + 1;
  around.shadows = lamp.shadows;
  around.beam.depth = static_cast<float>(light.wall_depth);
  around.beam.cone = lamp.cone < 360 ? std::max(lamp.cone, 0.0f) : 360;
  around.beam.direction = std::isfinite(turn) && around.beam.cone < 360 ? turn : 0;
  const std::vector<LightCorner>& corners = lit_by(entity, around, world.level.solid());
  if (corners.empty())
    lighting_.lamps.push_back(item);
  else
    light_up(item, corners, lighting_);
}

// What a lamp lights, from its middle; nothing when it is all around. Where nothing has changed it is what it was.
const std::vector<LightCorner>& SceneLight::lit_by(Entity entity, const Surroundings& around,
                                                   const SolidGrid& solid) {
  if (known_.size() <= entity.index) known_.resize(std::size_t{entity.index} + 1);
  Known& known = known_[entity.index];
  walls_.clear();
  if (around.shadows) add_shades(around);
  if (walls_.empty() && known.around == around) return known.corners;
  // Next time too, when a thing is in the way.
  known.around = walls_.empty() ? around : Surroundings{};
  const Vec2 middle = Vec2(around.at) + Vec2(0.5f);
  if (around.shadows) cells_.add(solid, middle, static_cast<float>(around.reach), walls_);
  known.corners.clear();
  if (walls_.empty() && around.beam.cone >= 360) return known.corners;
  lit_.find({0, 0}, static_cast<float>(around.reach), walls_, around.beam);
  known.corners.assign(lit_.corners().begin(), lit_.corners().end());
  return known.corners;
}

// Of things near a lamp.
void SceneLight::add_shades(const Surroundings& around) {
  const LightCorner middle{around.at.x + 0.5, around.at.y + 0.5};
  for (const Wall& shade : shades_) {
    const Wall wall{shade.from - middle, shade.to - middle};
    if (std::min(wall.from.x, wall.to.x) < around.reach && std::max(wall.from.x, wall.to.x) > -around.reach &&
        std::min(wall.from.y, wall.to.y) < around.reach && std::max(wall.from.y, wall.to.y) > -around.reach)
      walls_.push_back(wall);
  }
}

}  // namespace vole
