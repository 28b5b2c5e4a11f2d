#include "vole/scene/stage.hpp"

#include <fmt/core.h>

#include <algorithm>

#include "endless_level.hpp"
#include "level_cameras.hpp"
#include "level_places.hpp"
#include "scene/bodies/probing.hpp"
#include "scene/pictures/camera_target.hpp"
#include "scene/pictures/placement.hpp"
#include "scene_caches.hpp"
#include "tweens.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/asset/font.hpp"
#include "vole/base/names.hpp"
#include "vole/base/within.hpp"
#include "vole/level/level.hpp"
#include "vole/physics/subpixel.hpp"
#include "vole/scene/cues.hpp"
#include "vole/scene/movers/body_motion.hpp"
#include "vole/world/compiled_kinds.hpp"
#include "vole/world/sprite.hpp"
#include "vole/world/zone.hpp"

namespace vole {

const Binding& StageSetting::binding() const {
  return kinds.binding();
}

std::shared_ptr<SceneCaches> make_scene_caches() {
  return std::make_shared<SceneCaches>();
}

Stage::Stage(const StageSetting& setting, World& world, const SceneArgument& argument)
    : StageScenes(setting.scenes, world, argument),
      StageSequences(world, setting.binding(), setting.ticks_per_second),
      StageSaves(setting.saves),
      setting_(setting),
      world_(world),
      entities_(world.entities),
      camera_(world.camera),
      random_(world.random),
      solids_(std::make_unique<SolidThings>()) {}
Stage::~Stage() = default;

Catalog& Stage::catalog() const {
  return setting_.binding().catalog;
}
const Font& Stage::font(std::string_view name) const {
  return *catalog().get<Font>(name);
}
Entity Stage::thing(BodyId body) const {
  return solids_->thing(body);
}
const Input& Stage::input() const {
  return world_.input;
}
bool Stage::take_press(std::string_view action, float within, int player) {
  return world_.input.take_press(action, within, player);
}
void Stage::ask_for_control(bool asks) {
  world_.asks_for_control = asks;
}
const std::string& Stage::asked_control() const {
  return world_.input.asked_control;
}
void Stage::rebind(Rebinding rebinding) {
  outbox_.rebindings.push_back(std::move(rebinding));
}
void Stage::forget_rebindings() {
  outbox_.rebindings.push_back({});
}
Outbox Stage::take_outbox() {
  return std::exchange(outbox_, {});
}
std::int64_t Stage::ticks() const {
  return world_.ticks;
}
bool Stage::has_level() const {
  return static_cast<bool>(world_.level);
}
LevelNow& Stage::level() {
  return world_.level;
}
const LevelNow& Stage::level() const {
  return world_.level;
}
bool Stage::frozen() const {
  return world_.frozen_ticks > 0;
}
std::vector<Tween>& Stage::tweens() {
  return world_.tweens;
}
const Categories& Stage::categories() const {
  return setting_.kinds.written().categories;
}

template <class Add>
std::uint32_t Stage::add_piece(std::string_view name, const Add& add) {
  level_with("piece", name);
  const LevelNow before = world_.level;
  const LevelCameras cameras(world_);
  try {
    const PutPiece& piece = add(world_.level.choose(name));
    const std::uint32_t number = piece.number;
    expect_places(setting_, world_.level, piece.file());
    EndlessGoing(setting_, world_).finish(number);
    cameras.follow();
    return number;
  } catch (const Error&) {
    world_.level = before;
    throw;
  }
}

std::uint32_t Stage::put_piece(std::string_view name, IVec2 cell) {
  return add_piece(name, [&](const std::string& piece) -> PutPiece& {
    return world_.level.add_piece(piece, cell, setting_.binding());
  });
}

std::uint32_t Stage::join_piece(std::string_view name, std::uint32_t to, LevelSide side) {
  return add_piece(name, [&](const std::string& piece) -> PutPiece& {
    return world_.level.join_piece(piece, to, side, setting_.binding());
  });
}

void Stage::remove_piece(std::uint32_t number) {
  level_with("piece", std::to_string(number));
  const LevelCameras cameras(world_);
  EndlessGoing(setting_, world_).remove(number);
  cameras.follow();
}

std::uint32_t Stage::piece_of(Entity entity) const {
  const FromPlace* const from = entities().find<FromPlace>(entity);
  return from ? from->piece : 0;
}

void Stage::keep(Entity entity) {
  if (FromPlace* const from = entities().find<FromPlace>(entity)) from->keep = true;
}

Rect Stage::box(Entity entity) const {
  return get<Body>(entity).box(get<Pose>(entity).at);
}

Entity Stage::spawn(std::string_view kind, Vec2 at) {
  return spawn(*setting_.kinds.get(kind), at);
}

Entity Stage::spawn(std::string_view kind, Vec2 at, const TomlValue& over, const FilePosition& asked) {
  return spawn(*setting_.kinds.with(kind, over, asked), at);
}

Entity Stage::spawn(const CompiledKind& kind, Vec2 at) {
  expect_in_level(kind, world_.level ? &world_.level.file() : nullptr);
  const Entity entity = put_down(world_, kind, brought_within_reach(at), setting_.binding());
  if (kind.links) link_places(world_, setting_.binding().types);
  return entity;
}

void Stage::attach(Entity thing, Entity to, std::string_view point, Vec2 offset) {
  const Sprite* sprite = entities().find<Sprite>(to);
  if (!sprite || !sprite->sheet())
    throw Error(FilePosition{}, "a thing without a sprite has no points to attach to");
  if (!sprite->sheet()->missing) sprite->sheet()->point(point);
  int in_a_row = 1;
  for (Entity above = to; above; ++in_a_row) {
    if (above == thing) throw Error(FilePosition{}, "two things cannot be attached to each other");
    if (in_a_row > most_attached_in_a_row)
      throw Error(FilePosition{},
                  fmt::format("at most {} things can be attached in a row", most_attached_in_a_row));
    const Attached* next = entities().find<Attached>(above);
    above = next ? next->to : Entity{};
  }
  entities().add(thing, Attached{to, std::string(point), brought_within_reach(offset), false});
  Pose& pose = entities().get<Pose>(thing);
  pose.at = pose.before = on_lattice(placement(world_, thing, 1, Tracks::left_out, ticks_per_second()).at);
}

void Stage::detach(Entity thing) {
  entities().remove<Attached>(thing);
}

std::string_view Stage::kind_of(Entity entity) const {
  const KindOf* kind = entities().find<KindOf>(entity);
  return kind ? std::string_view(kind->name) : std::string_view();
}

void Stage::expect_kind(std::string_view kind) const {
  setting_.kinds.written().kind(kind);
}

void Stage::expect_tag(std::string_view tag) const {
  setting_.kinds.written().expect_tag(tag);
}

bool Stage::has_tag(Entity entity, std::string_view tag) const {
  const Tags* const tags = entities().find<Tags>(entity);
  if (tags && tags->has(tag)) return true;
  expect_tag(tag);
  return false;
}

const Level& Stage::level_with(std::string_view sort, std::string_view name) const {
  if (!has_level()) throw Error(FilePosition{}, fmt::format("no {} \"{}\": no level is loaded", sort, name));
  return level().file();
}

// The level's file, or that of a piece in it.
const Level& Stage::file_with(std::string_view sort, std::string_view name, std::uint32_t piece) const {
  const Level& own = level_with(sort, name);
  const PutPiece* const its = level().piece(piece);
  return its ? its->file() : own;
}

Entity Stage::named(std::string_view place, std::uint32_t piece) const {
  file_with("place", place, piece).place(place);
  Entity found;
  entities().visit<FromPlace>([&](Entity entity, const FromPlace& from) {
    if (from.piece != piece || removed(entity)) return;
    if (const LevelPlace* const from_here = level().place(from); from_here && from_here->name == place)
      found = entity;
  });
  return found;
}

Vec2 Stage::place(std::string_view name, std::uint32_t piece) const {
  return file_with("place", name, piece).place(name).at + level().offset(piece);
}

const LevelZone& Stage::zone(std::string_view name) const {
  level_with("zone", name);
  return level().zone(name);
}

const LevelPath& Stage::path(std::string_view name) const {
  level_with("path", name);
  return level().path(name);
}

LevelZone Stage::zone(std::string_view name, std::uint32_t piece) const {
  return file_with("zone", name, piece).zone(name).moved_by(level().offset(piece));
}

LevelPath Stage::path(std::string_view name, std::uint32_t piece) const {
  return file_with("path", name, piece).path(name).moved_by(level().offset(piece));
}

const SolidGrid& Stage::solid() const {
  static const SolidGrid nothing_solid;
  return has_level() ? level().solid() : nothing_solid;
}

SolidThings& Stage::solids() {
  return *solids_;
}

const SolidThings& Stage::solids() const {
  return *solids_;
}

void Stage::update_bodies() const {
  solids_->update(world_, categories(), setting_.binding().catalog);
}

const CollisionWorld& Stage::bodies() const {
  update_bodies();
  return solids_->world();
}

CategoryMask Stage::categories(std::initializer_list<std::string_view> names) const {
  CategoryMask mask = 0;
  for (const std::string_view name : names) mask |= CategoryMask{1} << categories().number(name);
  return mask;
}

const Probe& Stage::probe_of(Entity entity, std::string_view name) const {
  const Probes* const probes = entities().find<Probes>(entity);
  if (const auto* const item = probes ? find_named(probes->all, name) : nullptr) return item->value;
  throw Error(FilePosition{}, fmt::format("no probe \"{}\" of a \"{}\"", name, kind_of(entity)),
              probes ? did_you_mean(name, names_of(probes->all)) : "its kind has none");
}

bool Stage::probe(Entity entity, std::string_view name) const {
  const Pose& pose = get<Pose>(entity);
  return finds_something(bodies(), categories(), probe_of(entity, name), entity, pose);
}

Entity Stage::found(Entity entity, std::string_view probe) const {
  const Pose& pose = get<Pose>(entity);
  return first_found(bodies(), categories(), probe_of(entity, probe), entity, pose, *solids_);
}

void Stage::move(Entity entity, Vec2 by) {
  Motion unkept_motion;
  Touching unkept_touching;
  Motion* const motion = entities().find<Motion>(entity);
  Touching* const touching = entities().find<Touching>(entity);
  get<Body>(entity);
  Pose& pose = get<Pose>(entity);
  bodies();
  if (!solids_->has(entity)) return;  // it is removed, or nowhere
  Moving moving{solids_->world(), solids_->body(entity), solids_->rules(entity, categories()), solids_.get()};
  move_body(moving, brought_within_reach(by), motion ? *motion : unkept_motion,
            touching ? *touching : unkept_touching, pose);
}

Entity Stage::first(std::string_view kind) const {
  expect_kind(kind);
  Entity found;
  entities().visit<KindOf>([&](Entity entity, const KindOf& its) {
    if (!found && its.name == kind && !removed(entity)) found = entity;
  });
  return found;
}

int Stage::count(std::string_view kind) const {
  expect_kind(kind);
  int count = 0;
  entities().visit<KindOf>([&](Entity entity, const KindOf& its) {
    if (its.name == kind && !removed(entity)) ++count;
  });
  return count;
}

std::size_t Stage::add_tween(Entity entity, const DescribedType& component, std::size_t field) {
  const ComponentTypes::Type* const type = setting_.binding().types.of(component);
  if (!type)
    throw Error(FilePosition{}, "a tween of a component that the game does not know", "see Game::knows");
  if (field >= type->fields().size())
    throw Error(FilePosition{},
                fmt::format("a tween of a field of \"{}\" that is not described", type->name));
  return vole::add_tween(world_.tweens, *type, field, entity);
}

void Stage::set_background(Colour colour) {
  world_.background = colour;
}

void Stage::freeze(float seconds) {
  constexpr float longest = 60;
  const float ticks = brought_within(seconds, 0, longest) * static_cast<float>(ticks_per_second());
  world_.frozen_ticks = std::max(world_.frozen_ticks, static_cast<int>(ticks + 0.5f));
}

void Stage::follow(Entity entity, bool jump) {
  follow(std::vector<Entity>{entity}, jump);
}

void Stage::follow(std::vector<Entity> things, bool jump) {
  world_.followed = std::move(things);
  if (!jump) return;
  if (const auto target = target_of(world_, world_.followed)) camera().jump_to(target->at + camera().offset);
}

Vec2 Stage::on_canvas(Entity entity) const {
  return camera().to_canvas(get<Pose>(entity).at);
}

void Stage::look_within(std::string_view name, float seconds) {
  camera().move_over(zone(name).area, seconds);
}

ShownView& Stage::add_view(std::string_view name, const IRect& part) {
  if (find_named(world_.views, name))
    throw Error(FilePosition{}, fmt::format("a view \"{}\" is there already", name));
  ShownView& added = world_.views.emplace_back();
  added.name = name;
  added.camera.at = part.at;
  added.camera.canvas = part.size;
  added.camera.bounds = camera().bounds;
  return added;
}

ShownView& Stage::view(std::string_view name) {
  const std::size_t index = index_named(world_.views, name);
  if (index == world_.views.size())
    throw Error(FilePosition{}, fmt::format("no view \"{}\"", name),
                did_you_mean(name, names_of(world_.views)));
  return world_.views[index];
}

void Stage::remove_view(std::string_view name) {
  const ShownView& gone = view(name);
  world_.views.erase(world_.views.begin() + (&gone - world_.views.data()));
}

}  // namespace vole
