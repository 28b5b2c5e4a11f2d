#include "vole/scene/stage.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "vole/base/names.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/scene/side_mover.hpp"

namespace vole {
namespace {

const TickInput no_input;

}  // namespace

void Sprite::play(std::string_view clip) {
  if (const Clip* playing = animator.clip(); playing && playing->name == clip) return;
  animator.play(sheet->clip(clip));
}

Stage::Stage(const StageSetting& setting, std::uint64_t seed)
    : random(seed), setting_(setting), input_(&no_input) {
  camera.canvas = setting.canvas;
}

void Stage::load_level(std::string_view name) {
  level_ = catalog().get<Level>(name);
  level_version_ = level_.version();
  camera.bounds = {{0, 0}, Vec2(level_->size())};
  camera.jump_to({0, 0});
  Report report;
  for (const LevelPlace& place : level_->places) {
    try {
      spawn(place.kind, place.at, place.over, place.place);
    } catch (const Error& error) {
      report.add(error);
    }
  }
  report.throw_if_errors();
}

Entity Stage::spawn(std::string_view kind, Vec2 at, const Node& over, const Place& asked) {
  Node components = setting_.kinds.kind(kind, asked);
  components.merge(over);
  Report report;
  const Entity entity = entities.create();
  const Vec2 stands = on_lattice(at);
  entities.add(entity, KindOf{std::string(kind)});
  entities.add(entity, Pose{stands, stands});
  for (const Node::Entry& entry : components.entries) {
    if (const auto* type = setting_.types.find(entry.key))
      type->attach(entry.value, entities, entity, report);
    else
      report.error(entry.place, fmt::format("no component \"{}\"", entry.key),
                   did_you_mean(entry.key, setting_.types.names()));
  }
  if (entities.has<SideMover>(entity) && !entities.has<Body>(entity))
    report.error(components.place, fmt::format("kind \"{}\" has a side_mover but no body to move", kind));
  if (entities.has<SideMover>(entity) || entities.has<Person>(entity)) entities.add(entity, Intent{});
  if (Sprite* sprite = entities.find<Sprite>(entity); sprite && !report.has_errors()) {
    try {
      bind(*sprite);
    } catch (const Error& error) {
      report.add(error);
    }
  }
  if (report.has_errors()) entities.destroy(entity);
  report.throw_if_errors();
  return entity;
}

void Stage::bind(Sprite& sprite) {
  sprite.asset = catalog().get<Sheet>(sprite.sheet_name.value, sprite.sheet_name.place);
  sprite.sheet = sprite.asset.shared();
  if (level_) sprite.layer = level_->layer(sprite.layer_name.value, sprite.layer_name.place);
  if (!sprite.first_clip.value.empty())
    sprite.animator.play(sprite.sheet->clip(sprite.first_clip.value, sprite.first_clip.place));
}

void Stage::remove(Entity entity) {
  if (entities.alive(entity) && !removed(entity)) leaving_.push_back(entity);
}

bool Stage::removed(Entity entity) const {
  return !entities.alive(entity) || std::find(leaving_.begin(), leaving_.end(), entity) != leaving_.end();
}

std::string_view Stage::kind_of(Entity entity) const {
  const KindOf* kind = entities.find<KindOf>(entity);
  return kind ? std::string_view(kind->name) : std::string_view();
}

Entity Stage::first(std::string_view kind) const {
  setting_.kinds.kind(kind);
  Entity found;
  entities.each<KindOf>([&](Entity entity, const KindOf& its) {
    if (!found && its.name == kind && !removed(entity)) found = entity;
  });
  return found;
}

int Stage::count(std::string_view kind) const {
  setting_.kinds.kind(kind);
  int count = 0;
  entities.each<KindOf>([&](Entity entity, const KindOf& its) {
    if (its.name == kind && !removed(entity)) ++count;
  });
  return count;
}

void Stage::when_meet(std::string_view kind, std::string_view other, Meeting meeting) {
  for (const std::string_view name : {kind, other}) setting_.kinds.kind(name);
  meetings_.push_back({std::string(kind), std::string(other), std::move(meeting), {}, {}});
}

void Stage::follow(Entity entity, bool jump) {
  followed_ = entity;
  if (jump && entities.alive(entity)) camera.jump_to(get<Pose>(entity).at + camera.offset);
}

void Stage::go(std::string_view scene, std::any carried) {
  change_ = std::make_unique<SceneChange>(SceneChange{std::string(scene), std::move(carried)});
}

void Stage::add_to(Hash& hash) const {
  hash.add(ticks_);
  hash.add(random.state());
  entities.each<KindOf, Pose>([&](Entity entity, const KindOf& kind, const Pose& pose) {
    hash.add(std::uint64_t{entity.index});
    hash.add(std::string_view(kind.name));
    vole::add_to(hash, pose);
    for (const ComponentTypes::Type& type : setting_.types.all()) type.hash(entities, entity, hash);
    if (const Sprite* sprite = entities.find<Sprite>(entity)) {
      hash.add(sprite->animator.clip() ? std::string_view(sprite->animator.clip()->name)
                                       : std::string_view());
      hash.add(sprite->animator.ticks());
    }
  });
}

void Stage::begin_tick(const TickInput& input) {
  input_ = &input;
  entities.each<Pose>([](Entity, Pose& pose) { pose.before = pose.at; });
}

void Stage::end_tick() {
  pilot();
  move();
  meet();
  animate();
  aim_camera();
  sweep_out();
  ++ticks_;
}

void Stage::pilot() {
  entities.each<Intent, Person>([this](Entity, Intent& intent, const Person& person) {
    const TickInput::ActionState& jump = input_->action_state(person.jump.value);
    intent.direction = {input_->axis(person.walk.value), 0};
    intent.jump_pressed = jump.presses > 0;
    intent.jump_held = jump.held;
  });
}

void Stage::move() {
  static const SolidGrid nothing_solid;
  const SolidGrid& grid = level_ ? level_->solid : nothing_solid;
  entities.each<SideMover, Intent, Body, Pose>(
      [&](Entity, SideMover& mover, const Intent& intent, Body& body, Pose& pose) {
        move_sideways(grid, intent, seconds_per_tick(), mover, body, pose);
      });
}

void Stage::meet() {
  // A meeting may add rules, so rules are counted anew each time round.
  for (std::size_t i = 0; i < meetings_.size(); ++i) meet(meetings_[i]);
}

void Stage::meet(MeetingRule& rule) {
  std::swap(rule.now, rule.before);
  rule.now.clear();
  entities.each<KindOf, Body, Pose>([&](Entity a, const KindOf& kind, const Body& body, const Pose& pose) {
    if (kind.name != rule.kind) return;
    const Rect box = body.box(pose.at);
    entities.each<KindOf, Body, Pose>(
        [&](Entity b, const KindOf& other, const Body& other_body, const Pose& other_pose) {
          if (a == b || other.name != rule.other) return;
          if (box.overlaps(other_body.box(other_pose.at))) rule.now.emplace_back(a, b);
        });
  });
  for (const auto& pair : rule.now) {
    const bool begins = std::find(rule.before.begin(), rule.before.end(), pair) == rule.before.end();
    if (begins && !removed(pair.first) && !removed(pair.second)) rule.meeting(pair.first, pair.second);
  }
}

void Stage::animate() {
  const bool new_level = level_ && level_.version() != level_version_;
  if (new_level) {
    level_version_ = level_.version();
    camera.bounds = {{0, 0}, Vec2(level_->size())};
  }
  entities.each<Sprite>([&](Entity, Sprite& sprite) {
    if (sprite.asset && sprite.asset.shared() != sprite.sheet) {
      const std::string clip = sprite.animator.clip() ? sprite.animator.clip()->name : std::string();
      sprite.sheet = sprite.asset.shared();
      sprite.animator.replace(sprite.sheet->find_clip(clip));
    }
    if (new_level) {
      const auto found =
          std::find_if(level_->layers.begin(), level_->layers.end(),
                       [&](const LevelLayer& layer) { return layer.name == sprite.layer_name.value; });
      sprite.layer =
          static_cast<std::size_t>(std::min(found, level_->layers.end() - 1) - level_->layers.begin());
    }
    sprite.animator.tick();
  });
}

void Stage::aim_camera() {
  if (const Pose* pose = entities.find<Pose>(followed_)) camera.follow(pose->at, seconds_per_tick());
}

void Stage::sweep_out() {
  for (const Entity entity : leaving_) entities.destroy(entity);
  leaving_.clear();
}

void Stage::add_sprite(DrawList& list, LayerId layer, const Pose& pose, const Sprite& sprite,
                       float between) const {
  if (!sprite.sheet) return;
  const auto index = static_cast<std::size_t>(sprite.animator.frame(setting_.ticks_per_second));
  if (index >= sprite.sheet->frames.size()) return;
  const Frame& frame = sprite.sheet->frames[index];
  list.add(layer, {.picture = sprite.sheet->picture.get(),
                   .from = frame.area,
                   .alpha = frame.alpha,
                   .at = pose.between(between),
                   .pivot = sprite.sheet->pivot,
                   .flip_x = pose.faces_left,
                   .tint = sprite.tint,
                   .opacity = sprite.opacity,
                   .blend = sprite.blend,
                   .flash = sprite.flash,
                   .depth = sprite.depth});
}

LayerId Stage::draw(DrawList& list, float between) const {
  const std::size_t layers = level_ ? level_->layers.size() : 1;
  for (std::size_t i = 0; i < layers; ++i) {
    const Vec2 parallax = level_ ? level_->layers[i].parallax : Vec2{1, 1};
    const LayerId id = list.add_layer(camera.corner(parallax, between));
    if (!level_) continue;
    const LevelLayer& layer = level_->layers[i];
    if (layer.picture) {
      // Repeated sideways over the whole canvas; its bottom lies where the level's bottom comes to rest.
      const IVec2 size = layer.picture->size();
      const int lowest =
          static_cast<int>(static_cast<float>(std::max(level_->size().y - camera.canvas.y, 0)) * parallax.y);
      const int top = lowest + camera.canvas.y - size.y;
      const int left = list.corner(id).x;
      for (int x = left - ((left % size.x) + size.x) % size.x; x < left + camera.canvas.x; x += size.x)
        list.add(id, {.picture = layer.picture.get(),
                      .from = layer.picture->area(),
                      .alpha = layer.alpha,
                      .at = Vec2(x, top),
                      .depth = -1e9f});
    }
    if (!layer.tiles.empty())
      list.add(id, TilesItem{level_->tileset->picture.get(), layer.tiles.data(), level_->cells,
                             level_->tile_size(), level_->tileset->frames.data()});
  }
  entities.each<Sprite, Pose>([&](Entity, const Sprite& sprite, const Pose& pose) {
    add_sprite(list, static_cast<LayerId>(std::min(sprite.layer, layers - 1)), pose, sprite, between);
  });
  return list.add_layer({0, 0});
}

void Stage::draw_xray(DrawList& list, float between) const {
  constexpr Colour solid_colour{0xb3, 0x48, 0x5a, 0xff};
  constexpr Colour body_colour{0xa9, 0xbb, 0x5c, 0xff};
  constexpr Colour pivot_colour{0xf7, 0xf3, 0xe3, 0xff};
  const IVec2 corner = camera.corner({1, 1}, between);
  const LayerId layer = list.add_layer(corner);
  if (level_) {
    const int size = level_->tile_size();
    for (int y = corner.y / size - 1; y <= (corner.y + camera.canvas.y) / size; ++y)
      for (int x = corner.x / size - 1; x <= (corner.x + camera.canvas.x) / size; ++x)
        if (x >= 0 && y >= 0 && x < level_->cells.x && y < level_->cells.y && level_->solid.solid(x, y))
          list.outline(layer, {Vec2(x * size, y * size), Vec2(size, size)}, solid_colour);
  }
  entities.each<Pose>([&](Entity entity, const Pose& pose) {
    const Vec2 at = pose.between(between);
    if (const Body* body = entities.find<Body>(entity)) list.outline(layer, body->box(at), body_colour);
    list.fill(layer, {{at.x - 1, at.y}, {3, 1}}, pivot_colour);
    list.fill(layer, {{at.x, at.y - 1}, {1, 3}}, pivot_colour);
  });
}

}  // namespace vole
