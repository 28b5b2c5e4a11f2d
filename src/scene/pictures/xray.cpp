#include <fmt/core.h>

#include <array>
#include <cmath>

#include "placement.hpp"
#include "scene/bodies/probing.hpp"
#include "scene/tick.hpp"
#include "vole/asset/font.hpp"
#include "vole/base/trig.hpp"
#include "vole/draw/mark_colours.hpp"
#include "vole/draw/text.hpp"
#include "vole/scene/pictures/shape_drawing.hpp"
#include "vole/world/lamp.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/zone.hpp"
#include "xray_drawing.hpp"

namespace vole {
namespace {

enum Role : std::size_t {
  tile,
  one_way,
  solid,
  touched,
  sensor,
  off,
  zone_area,
  probe_yes,
  probe_no,
  contact,
  pivot,
  lamp,
  camera_box
};
struct RoleLook {
  std::string_view name;
  Colour colour;
};
constexpr std::array<RoleLook, 13> looks{{{"solid tile", mark_colours::solid_tile},
                                          {"one-way", mark_colours::one_way},
                                          {"solid body", mark_colours::solid_body},
                                          {"touched", mark_colours::touched},
                                          {"sensor", mark_colours::sensor},
                                          {"off", mark_colours::off},
                                          {"zone", mark_colours::zone},
                                          {"probe: found", mark_colours::probe_found},
                                          {"probe: nothing", mark_colours::probe_nothing},
                                          {"contact", mark_colours::contact},
                                          {"position", mark_colours::position},
                                          {"lamp", mark_colours::lamp},
                                          {"camera", mark_colours::camera}}};

class Xray {
 public:
  Xray(DrawList& list, const RunningScene& scene, XrayParts parts, float share)
      : list_(list), scene_(scene), world_(scene.world()), parts_(parts), share_(share) {}

  XrayRoles draw(const CollisionWorld& bodies) {
    const IVec2 corner = world_.camera.corner({1, 1}, share_);
    layer_ = list_.add_layer(corner);
    seen_ = {Vec2(corner), Vec2(list_.size(layer_))};
    if (parts_.has(XrayPart::tiles) && world_.level) draw_tiles(corner);
    world_.entities.visit<Pose>([&](Entity entity, const Pose& pose) { draw_thing(bodies, entity, pose); });
    if (parts_.has(XrayPart::camera)) draw_camera();
    return used_;
  }

 private:
  Colour use(Role role) {
    used_[role] = true;
    return looks[role].colour;
  }

  void draw_tiles(IVec2 corner) {
    const SolidGrid& grid = world_.level.solid();
    const IVec2 size = grid.cell();
    const IVec2 cells = grid.cells(), end = corner + list_.size(layer_);
    for (int y = std::max(corner.y / size.y - 1, 0); y <= end.y / size.y && y < cells.y; ++y)
      for (int x = std::max(corner.x / size.x - 1, 0); x <= end.x / size.x && x < cells.x; ++x)
        if (const CellForm* const form = grid.form(x, y))
          draw_cell(list_, layer_, grid, {x, y}, use(form->one_way == OneWay::no ? tile : one_way));
  }

  void draw_thing(const CollisionWorld& bodies, Entity entity, const Pose& pose) {
    const Entities& entities = world_.entities;
    const Vec2 at = pose.shown_at(shown_share(world_, entity, share_));
    if (const Zone* const zone = entities.find<Zone>(entity)) {
      const Rect area = entities.get<Body>(entity).box(at);
      if (!parts_.has(XrayPart::zones) || !area.overlaps(seen_)) return;
      list_.outline(layer_, area, use(zone_area));
      draw_text(list_, layer_, plain_font(), zone->name, area.at + Vec2{2, 2},
                {.colour = looks[zone_area].colour});
      return;
    }
    if (!Rect{at - Vec2(256), Vec2(512)}.overlaps(seen_)) return;
    // What it is lies over what it sees.
    if (parts_.has(XrayPart::probes)) draw_probes(bodies, entity, pose, at);
    if (parts_.has(XrayPart::bodies) && bodies.has(entity.index) && entities.has<Body>(entity))
      draw_body(bodies.body(entity.index), entity, at);
    if (parts_.has(XrayPart::contacts)) draw_contacts(entity, at);
    if (parts_.has(XrayPart::lamps)) draw_lamp(entity);
    if (parts_.has(XrayPart::pivots)) draw_pivot(at);
    if (parts_.has(XrayPart::names)) draw_name(entity, at);
  }

  Role role_of(const CollisionBody& body, std::uint32_t place, Entity entity) const {
    const BodyUse use = body.use_of(place);
    if (use == BodyUse::off) return off;
    for (const MetPair& pair : world_.met)
      if (pair.first == entity || pair.second == entity) return touched;
    if (use == BodyUse::sensor) return sensor;
    if (body.one_way != OneWay::no) return one_way;
    // What holds nothing but is held is solid too; what neither does only notices.
    return scene_.stage().categories().blocks(body.category) == CategoryMask{1} &&
                   !world_.entities.has<Motion>(entity)
               ? sensor
               : solid;
  }

  void draw_body(const CollisionBody& body, Entity entity, Vec2 at) {
    if (!body.shapes) return list_.outline(layer_, body.box.moved_by(at), use(role_of(body, 0, entity)));
    for (std::uint32_t i = 0; i < body.shapes->size(); ++i)
      draw_shape(list_, layer_, (*body.shapes)[i], at, use(role_of(body, i, entity)));
  }

  void draw_contacts(Entity entity, Vec2 at) {
    const Touching* const touching = world_.entities.find<Touching>(entity);
    const Body* const body = world_.entities.find<Body>(entity);
    if (!touching || !body) return;
    const Rect box = body->box(at);
    const Vec2 middle = box.at + box.size * 0.5f;
    constexpr float length = 6;
    const auto arrow = [&](bool there, Vec2 from, Vec2 normal) {
      if (there) draw_line(list_, layer_, from, from + normal * length, use(contact));
    };
    arrow(touching->ground, {middle.x, box.bottom()}, touching->ground_normal);
    arrow(touching->ceiling, {middle.x, box.top()}, {0, 1});
    arrow(touching->wall_left, {box.left(), middle.y}, {1, 0});
    arrow(touching->wall_right, {box.right(), middle.y}, {-1, 0});
  }

  void draw_probes(const CollisionWorld& bodies, Entity entity, const Pose& pose, Vec2 at) {
    const Probes* const probes = world_.entities.find<Probes>(entity);
    if (!probes) return;
    ProbeStand stand = stand_of(bodies, entity, pose);
    stand.at = at;
    for (const auto& item : probes->all) {
      const bool found = finds_something(bodies, scene_.stage().categories(), item.value, entity, pose);
      const Colour colour = use(found ? probe_yes : probe_no);
      const Probe& probe = item.value;
      if (probe.is_ray())
        draw_line(list_, layer_, Probe::placed(*probe.from, stand), Probe::placed(*probe.to, stand), colour);
      else
        list_.outline(layer_, probe.box(stand), colour);
    }
  }

  // As far as it shines, where nothing is in the way.
  void draw_lamp(Entity entity) {
    const Lamp* const its = world_.entities.find<Lamp>(entity);
    if (!its || !its->shines || !(its->radius >= 1)) return;
    const Placement place = placement_of_point(world_, entity, its->point.value, its->offset, share_,
                                               scene_.stage().ticks_per_second());
    draw_shape(list_, layer_, Shape::circle({0, 0}, its->radius), place.at, use(lamp));
  }

  void draw_pivot(Vec2 at) {
    const Colour colour = use(pivot);
    list_.fill(layer_, {{at.x - 1, at.y}, {3, 1}}, colour);
    list_.fill(layer_, {{at.x, at.y - 1}, {1, 3}}, colour);
  }

  // Where each of its sequences is, so that one sees what it waits for.
  void add_sequences(Entity entity, std::string& text) {
    for (std::size_t i = 0; i < world_.sequences.size(); ++i) {
      const RunningSequence& running = world_.sequences.at(i);
      if (running.owner != entity) continue;
      for (const SequenceBranch& branch : running.branches)
        if (const SequenceStep* const step =
                branch.over ? nullptr : step_of(world_.entities, running, branch))
          text += fmt::format("\n{} {}: {}", running.name, branch.step + 1,
                              step->name.empty() ? step->deed().word : step->name);
    }
  }

  void draw_name(Entity entity, Vec2 at) {
    const std::string_view kind = scene_.stage().kind_of(entity);
    if (kind.empty()) return;
    const Motion* const motion = world_.entities.find<Motion>(entity);
    std::string text = motion ? fmt::format("{} {:.0f},{:.0f}", kind, motion->velocity.x, motion->velocity.y)
                              : std::string(kind);
    add_sequences(entity, text);
    draw_text(list_, layer_, plain_font(), text, at + Vec2{0, 3},
              {.anchor = Anchor::top, .outline = Colour{0x1b, 0x1a, 0x26, 0xff}});
  }

  // What it follows within its slack.
  void draw_camera() {
    const Camera& camera = world_.camera;
    const Vec2 middle = seen_.at + seen_.size * 0.5f - camera.offset - camera.looks();
    list_.outline(layer_, {middle - camera.slack, camera.slack * 2.0f}, use(camera_box));
  }

  DrawList& list_;
  const RunningScene& scene_;
  const World& world_;
  XrayParts parts_;
  float share_;
  LayerId layer_ = 0;
  Rect seen_;
  XrayRoles used_;
};

}  // namespace

XrayRoles draw_xray(DrawList& list, const RunningScene& scene, XrayParts parts, float share) {
  return Xray(list, scene, parts, share).draw(scene.stage().bodies());
}

void draw_xray_legend(DrawList& list, XrayRoles roles) {
  constexpr int line = 11, margin = 3, gap = 20;
  const Font& font = plain_font();
  const Vec2 canvas(list.canvas());
  std::array<Vec2, looks.size()> places{};
  Vec2 next{margin, margin};
  for (std::size_t role = 0; role < looks.size(); ++role) {
    if (!roles[role]) continue;
    const auto width = static_cast<float>(measure_text(font, looks[role].name, 0).x + gap);
    if (next.x + width > canvas.x && next.x > margin) next = {margin, next.y + line};
    places[role] = next;
    next.x += width;
  }
  const float height = next.y + line;
  if (next == Vec2{margin, margin} || height * 2 > canvas.y) return;
  const LayerId layer = list.add_layer({0, 0});
  const Vec2 corner{0, canvas.y - height};
  list.fill(layer, {corner, {canvas.x, height}}, {0x1b, 0x1a, 0x26, 0xd0});
  for (std::size_t role = 0; role < looks.size(); ++role) {
    if (!roles[role]) continue;
    list.outline(layer, {corner + places[role], {7, 7}}, looks[role].colour);
    draw_text(list, layer, font, looks[role].name, corner + places[role] + Vec2{10, 0},
              {.colour = looks[role].colour});
  }
}

}  // namespace vole
