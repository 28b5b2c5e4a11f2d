#include "vole/scene/stage.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <utility>

#include "vole/base/names.hpp"
#include "vole/base/trig.hpp"
#include "vole/draw/background.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/scene/side_mover.hpp"

namespace vole {
namespace {

const TickInput no_input;

// Things may carry things, but not for ever.
constexpr int most_carried_in_turn = 8;

// The place in a level that a thing came from.
struct FromPlace {
  std::size_t place = 0;
};

const ClipRules no_rules;

Colour tinted_by(Colour tint, Vec3 shares) {
  const auto part = [](std::uint8_t value, float share) {
    return static_cast<std::uint8_t>(std::clamp(static_cast<float>(value) * share, 0.0f, 255.0f) + 0.5f);
  };
  return {part(tint.r, shares.x), part(tint.g, shares.y), part(tint.b, shares.z), tint.a};
}

bool same_place(const LevelPlace& a, const LevelPlace& b) {
  return a.kind == b.kind && a.at == b.at && a.name == b.name;
}

// A set by direction shows the way that the thing wants to go, or else goes.
void turn_along(Sprite& sprite, const Intent* intent, const Body* body) {
  if (intent && intent->direction != Vec2{0, 0})
    sprite.face(intent->direction);
  else if (body)
    sprite.face(body->velocity);
}

Vec2 turned(Vec2 by, float degrees) {
  if (degrees == 0) return by;
  const float s = sin_degrees(degrees), c = cos_degrees(degrees);
  return {c * by.x - s * by.y, s * by.x + c * by.y};
}

}  // namespace

Stage::Stage(const StageSetting& setting, std::uint64_t seed)
    : random(seed), setting_(setting), input_(&no_input) {
  camera.canvas = setting.canvas;
}

void Stage::load_level(std::string_view name) {
  level_ = catalog().get<Level>(name);
  level_version_ = level_.version();
  camera.bounds = {{0, 0}, Vec2(level_->size())};
  camera.jump_to({0, 0});
  places_ = level_->places;
  Report report;
  for (std::size_t i = 0; i < places_.size(); ++i) {
    const LevelPlace& place = places_[i];
    try {
      entities.add(spawn(place.kind, place.at, place.over, place.place), FromPlace{i});
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
  if (!report.has_errors()) {
    try {
      bring_carried(entity, entities.get<Pose>(entity));
    } catch (const Error& error) {
      report.add(error);
    }
  }
  if (report.has_errors()) entities.destroy(entity);
  report.throw_if_errors();
  return entity;
}

void Stage::bring_carried(Entity entity, const Pose& pose) {
  const Carries* carries = entities.find<Carries>(entity);
  if (!carries) return;
  for (const auto& item : carries->things) {
    if (carrying_ >= most_carried_in_turn)
      throw Error(item.value.place, fmt::format("\"{}\" carries something that carries it", item.value.value),
                  "take one of them out of the ring");
    ++carrying_;
    Entity thing;
    try {
      thing = spawn(item.value.value, pose.at, {}, item.value.place);
      attach(thing, entity, item.name);
    } catch (Error& error) {
      --carrying_;
      if (thing) entities.destroy(thing);
      if (error.problems().size() == 1 && !error.problems()[0].place.file)
        throw Error(item.place, error.problems()[0].text, error.problems()[0].hint);
      throw;
    }
    --carrying_;
    entities.get<Attached>(thing).leaves_along = true;
  }
}

void Stage::check_tracks(const Sheet& sheet) const {
  Report report;
  setting_.types.check_tracks(sheet, ComponentTypes::Unknown::told, report);
  report.throw_if_errors();
}

void Stage::bind(Sprite& sprite) {
  sprite.asset = catalog().get<Sheet>(sprite.sheet_name.value, sprite.sheet_name.place);
  sprite.take_sheet(sprite.asset.shared());
  if (level_) sprite.layer = level_->layer(sprite.layer_name.value, sprite.layer_name.place);
  if (sprite.sheet->missing) return;
  check_tracks(*sprite.sheet);
  if (!sprite.frame_name.value.empty())
    sprite.still = sprite.sheet->frame(sprite.frame_name.value, sprite.frame_name.place);
  if (sprite.first_clip.value.empty()) return;
  sprite.sheet->expect_played(sprite.first_clip.value, sprite.first_clip.place);
  sprite.play(sprite.first_clip.value);
}

void Stage::remove(Entity entity) {
  if (!entities.alive(entity) || removed(entity)) return;
  leaving_.push_back(entity);
  entities.each<Attached>([&](Entity thing, const Attached& attached) {
    if (attached.to == entity && attached.leaves_along) remove(thing);
  });
}

void Stage::attach(Entity thing, Entity to, std::string_view point, Vec2 offset) {
  const Sprite* sprite = entities.find<Sprite>(to);
  if (!sprite || !sprite->sheet) throw Error(Place{}, "a thing without a sprite has no points to hang from");
  if (!sprite->sheet->missing) sprite->sheet->point(point);
  for (Entity above = to; above;) {
    if (above == thing) throw Error(Place{}, "two things cannot hang from each other");
    const Attached* next = entities.find<Attached>(above);
    above = next ? next->to : Entity{};
  }
  entities.add(thing, Attached{to, std::string(point), offset, false});
  Pose& pose = entities.get<Pose>(thing);
  pose.at = pose.before = on_lattice(placement(thing, 1, Tracks::left_out).at);
}

void Stage::detach(Entity thing) {
  entities.take<Attached>(thing);
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
  hash.add(std::int64_t{frozen_ticks_});
  tweens_.add_to(hash);
  entities.each<KindOf, Pose>([&](Entity entity, const KindOf& kind, const Pose& pose) {
    hash.add(std::uint64_t{entity.index});
    hash.add(std::string_view(kind.name));
    vole::add_to(hash, pose);
    for (const ComponentTypes::Type& type : setting_.types.all()) type.hash(entities, entity, hash);
    if (const Sprite* sprite = entities.find<Sprite>(entity)) {
      hash.add(sprite->animator.clip() ? std::string_view(sprite->animator.clip()->name)
                                       : std::string_view());
      hash.add(sprite->animator.ticks());
      hash.add(sprite->animator.progress());
    }
  });
}

void Stage::begin_tick(const TickInput& input) {
  input_ = &input;
  put_fields_back();
  entities.each<Pose>([](Entity, Pose& pose) { pose.before = pose.at; });
}

void Stage::freeze(float seconds) {
  const float ticks = std::clamp(seconds, 0.0f, 60.0f) * static_cast<float>(setting_.ticks_per_second);
  frozen_ticks_ = std::max(frozen_ticks_, static_cast<int>(ticks + 0.5f));
}

void Stage::end_tick() {
  if (frozen_ticks_ > 0) {
    --frozen_ticks_;
  } else {
    pilot();
    move();
    meet();
    tweens_.step(entities, setting_.ticks_per_second);
    animate();
    carry_along();
  }
  aim_camera();
  sweep_out();
  show_fields();
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
  if (level_ && level_.version() != level_version_) take_new_level();
  happened_.clear();
  entities.each<Sprite>([&](Entity entity, Sprite& sprite) {
    if (sprite.asset && sprite.asset.shared() != sprite.sheet) {
      sprite.take_sheet(sprite.asset.shared());
      check_tracks(*sprite.sheet);
    }
    const Body* body = entities.find<Body>(entity);
    follow_rules(sprite, body);
    if (sprite.set_index >= 0) turn_along(sprite, entities.find<Intent>(entity), body);
    for (Sprite::PlayingTrack& playing : sprite.playing_tracks)
      if (playing.track && playing.track->over_at(++playing.ticks, setting_.ticks_per_second)) playing = {};
    const std::uint32_t starts = sprite.animator.starts();
    sprite.animator.tick(setting_.ticks_per_second, [&](const ClipEvent& event) {
      happened_.push_back({entity, event.name, starts});
    });
  });
  tell_events();
}

void Stage::follow_rules(Sprite& sprite, const Body* body) {
  const ClipRules& rules = sprite.sheet ? sprite.sheet->rules : no_rules;
  if (rules.empty()) return;
  const bool over = sprite.animator.over(setting_.ticks_per_second);
  sprite.tell_facts(body, setting_.ticks_per_second);
  ++sprite.rule_ticks;
  const int decided = rules.decide(sprite.facts);
  if (decided < 0 || decided == sprite.rule) return;
  if (sprite.rule >= 0) {
    const ClipRules::Rule& now = rules.rules()[static_cast<std::size_t>(sprite.rule)];
    const std::int64_t shown = std::int64_t{sprite.rule_ticks} * 1000 / setting_.ticks_per_second;
    if (shown < now.hold_milliseconds || (now.finish && !over)) return;
  }
  sprite.rule = decided;
  sprite.rule_ticks = 0;
  sprite.play(rules.rules()[static_cast<std::size_t>(decided)].clip);
}

void Stage::when_event(std::string_view kind, std::string_view event, std::function<void(Entity)> handler) {
  setting_.kinds.kind(kind);
  event_rules_.push_back({std::string(kind), std::string(event), std::move(handler)});
}

void Stage::tell_events() {
  for (const Happened& now : happened_)
    for (std::size_t i = 0; i < event_rules_.size(); ++i) {
      const EventRule& rule = event_rules_[i];
      const Sprite* sprite = entities.find<Sprite>(now.entity);
      if (!sprite || removed(now.entity) || sprite->animator.starts() != now.starts) break;
      if (rule.event == now.event && rule.kind == kind_of(now.entity)) rule.handler(now.entity);
    }
}

// A level was loaded anew while it runs. What was placed and still is goes on as it was; what is placed now
// and was not comes to life; what is placed no more leaves.
void Stage::take_new_level() {
  level_version_ = level_.version();
  camera.bounds = {{0, 0}, Vec2(level_->size())};
  const std::vector<LevelPlace> before = std::exchange(places_, level_->places);
  std::vector<bool> taken(places_.size(), false);
  entities.each<FromPlace>([&](Entity entity, FromPlace& from) {
    std::size_t i = 0;
    while (i < places_.size() && (taken[i] || !same_place(places_[i], before[from.place]))) ++i;
    if (i == places_.size()) return remove(entity);
    from.place = i;
    taken[i] = true;
  });
  // Places whose things had left before the change were not taken, and stay empty.
  for (std::size_t i = 0; i < places_.size(); ++i) {
    const LevelPlace& place = places_[i];
    const auto was_there = [&](const LevelPlace& old) { return same_place(old, place); };
    if (taken[i] || std::any_of(before.begin(), before.end(), was_there)) continue;
    entities.add(spawn(place.kind, place.at, place.over, place.place), FromPlace{i});
  }
  entities.each<Sprite>([&](Entity, Sprite& sprite) {
    const auto found =
        std::find_if(level_->layers.begin(), level_->layers.end(),
                     [&](const LevelLayer& layer) { return layer.name == sprite.layer_name.value; });
    sprite.layer =
        static_cast<std::size_t>(std::min(found, level_->layers.end() - 1) - level_->layers.begin());
  });
  keep_out_of_walls();
}

// Where a new wall stands in a thing's place, the thing goes up to the first free spot above it.
void Stage::keep_out_of_walls() {
  entities.each<SideMover, Body, Pose>([&](Entity, const SideMover&, Body& body, Pose& pose) {
    const auto blocked = [&](Vec2 at) {
      const Rect box = body.box(at);
      const auto size = static_cast<float>(level_->tile_size());
      for (float y = std::floor(box.top() / size); y * size < box.bottom(); ++y)
        for (float x = std::floor(box.left() / size); x * size < box.right(); ++x)
          if (level_->solid.solid(static_cast<int>(x), static_cast<int>(y))) return true;
      return false;
    };
    Vec2 at = pose.at;
    while (at.y > 0 && blocked(at)) at.y -= 1;
    if (at == pose.at || blocked(at)) return;
    pose.at = pose.before = on_lattice(at);
    body.velocity = {0, 0};
  });
}

void Stage::aim_camera() {
  if (const Pose* pose = entities.find<Pose>(followed_)) camera.follow(pose->at, seconds_per_tick());
}

void Stage::sweep_out() {
  for (const Entity entity : leaving_) entities.destroy(entity);
  leaving_.clear();
}

int Stage::frame_of_sprite(const Sprite& sprite) const {
  const int frame = sprite.animator.clip() ? sprite.animator.frame(setting_.ticks_per_second) : sprite.still;
  return frame < static_cast<int>(sprite.sheet->frames.size()) ? frame : -1;
}

Stage::Placement Stage::placement(Entity entity, float between, Tracks tracks) const {
  Placement place;
  if (const Pose* pose = entities.find<Pose>(entity)) {
    place.at = pose->between(between);
    place.flip_x = pose->faces_left;
  }
  if (const Sprite* sprite = entities.find<Sprite>(entity)) {
    place.scale = sprite->scale;
    place.rotation = sprite->rotation;
    if (const ClipSet::Member* member = sprite->playing_member()) {
      if (sprite->playing_set()->by_direction) place.flip_x = member->flip_x;
      place.rotation += member->rotation;
    }
    place.flip_x = place.flip_x != sprite->flip_x;
    place.flip_y = sprite->flip_y;
  }
  if (const Attached* attached = entities.find<Attached>(entity))
    place_on_point(*attached, between, tracks, place);
  if (const Sprite* sprite = entities.find<Sprite>(entity);
      sprite && sprite->sheet && tracks == Tracks::shown) {
    const TrackPose track = sprite->track_pose(setting_.ticks_per_second);
    place.at += track.offset * Vec2(place.flip_x ? -1.0f : 1.0f, place.flip_y ? -1.0f : 1.0f);
    place.scale *= track.scale;
    place.rotation += place.flip_x ? -track.rotation : track.rotation;
    place.opacity = sprite->opacity * track.opacity * track.alpha;
    place.tint = tinted_by(sprite->tint, track.tint);
  }
  return place;
}

void Stage::place_on_point(const Attached& attached, float between, Tracks tracks, Placement& place) const {
  const Sprite* sprite = entities.find<Sprite>(attached.to);
  const int index = sprite && sprite->sheet ? frame_of_sprite(*sprite) : -1;
  if (index < 0) return;
  const Placement of = placement(attached.to, between, tracks);
  const IVec2 pivot = sprite->sheet->posed(index, sprite->animator.clip()).pivot;
  const SheetPoint* point = sprite->sheet->find_point(attached.point);
  Vec2 by = Vec2(point ? point->at(index) - pivot : IVec2{0, 0}) + attached.offset;
  by = {by.x * of.scale.x * (of.flip_x ? -1.0f : 1.0f), by.y * of.scale.y * (of.flip_y ? -1.0f : 1.0f)};
  place.at = of.at + turned(by, of.rotation);
  place.rotation += of.rotation;
  place.flip_x = place.flip_x != of.flip_x;
  place.flip_y = place.flip_y != of.flip_y;
}

void Stage::carry_along() {
  entities.each<Attached, Pose>([this](Entity thing, const Attached&, Pose& pose) {
    pose.at = on_lattice(placement(thing, 1, Tracks::left_out).at);
  });
}

void Stage::add_sprite(DrawList& list, Entity entity, const Sprite& sprite, float between) const {
  const int index = sprite.sheet ? frame_of_sprite(sprite) : -1;
  if (index < 0) return;
  const std::size_t layers = level_ ? level_->layers.size() : 1;
  const std::size_t layer = std::min(sprite.layer, layers - 1);
  const Frame frame = sprite.sheet->posed(index, sprite.animator.clip());
  const Placement place = placement(entity, between, Tracks::shown);
  PictureItem item = show(frame, place.at);
  item.scale = place.scale;
  if (sprite.size) item.scale *= *sprite.size / Vec2(std::max(frame.size.x, 1), std::max(frame.size.y, 1));
  item.rotation = place.rotation;
  item.flip_x = place.flip_x;
  item.flip_y = place.flip_y;
  item.tint = place.tint;
  item.opacity = place.opacity;
  item.blend = sprite.blend;
  item.flash = sprite.flash;
  item.depth = sprite.depth;
  if (level_ && level_->layers[layer].order == LayerOrder::feet) item.depth += place.at.y;
  list.add(static_cast<LayerId>(layer), item);
}

// A level's picture lies where the level's edge comes to rest.
void Stage::draw_layer(DrawList& list, LayerId id, const LevelLayer& layer) const {
  constexpr float behind_all = -1e9f;
  if (layer.picture && layer.cover) {
    draw_covering(list, id, layer.frame, {.depth = behind_all});
  } else if (layer.picture) {
    const auto rest = static_cast<float>(std::max(level_->size().y - camera.canvas.y, 0)) * layer.parallax.y;
    const int height = layer.frame.size.y;
    const int top = layer.edge == LayerEdge::top ? 0 : static_cast<int>(rest) + camera.canvas.y - height;
    draw_repeated(list, id, layer.frame, Vec2(0, top), layer.repeat, {.depth = behind_all});
  }
  if (!layer.tiles.empty())
    list.add(id, TilesItem{level_->tileset->picture.get(), layer.tiles.data(), level_->cells,
                           level_->tile_size(), level_->tileset->frames.data()});
}

LayerId Stage::draw(DrawList& list, float between) const {
  const std::size_t layers = level_ ? level_->layers.size() : 1;
  for (std::size_t i = 0; i < layers; ++i) {
    const Vec2 parallax = level_ ? level_->layers[i].parallax : Vec2{1, 1};
    const LayerId id = list.add_layer(camera.corner(parallax, between));
    if (level_) draw_layer(list, id, level_->layers[i]);
  }
  entities.each<Sprite, Pose>(
      [&](Entity entity, const Sprite& sprite, const Pose&) { add_sprite(list, entity, sprite, between); });
  return list.add_layer({0, 0});
}

LayerId Stage::layer(std::string_view name) const {
  if (!level_) throw Error(Place{}, fmt::format("no layer \"{}\": no level is loaded", name));
  return static_cast<LayerId>(level_->layer(name));
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
