// What a running scene works on: its things, level, camera, input, chance and assets.
//
//   stage.load_level("beds");
//   stage.after(60, "frost");
//   if (stage.input().pressed("pause")) stage.leave_for("title");
//
// All state behind it is in its World (world.hpp); what happens when is said in cues (cues.hpp); other scenes: stage_scenes.hpp; time:
// stage_time.hpp, stage_sequences.hpp; saves: stage_saves.hpp.
#pragma once

#include <initializer_list>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <utility>

#include "vole/base/field_index.hpp"
#include "vole/base/random.hpp"
#include "vole/draw/camera.hpp"
#include "vole/input/input.hpp"
#include "vole/physics/body_id.hpp"
#include "vole/scene/argument.hpp"
#include "vole/scene/outbox.hpp"
#include "vole/scene/pictures/xray.hpp"
#include "vole/scene/scene_types.hpp"
#include "vole/scene/stage_saves.hpp"
#include "vole/scene/stage_scenes.hpp"
#include "vole/scene/stage_sequences.hpp"
#include "vole/scene/steps.hpp"
#include "vole/scene/thing_selector.hpp"
#include "vole/scene/tweening.hpp"
#include "vole/scene/values.hpp"
#include "vole/world/attached.hpp"
#include "vole/world/body.hpp"
#include "vole/world/entities.hpp"
#include "vole/world/kind_of.hpp"
#include "vole/world/level_now.hpp"
#include "vole/world/pose.hpp"
#include "vole/world/probes.hpp"
#include "vole/world/tags.hpp"

namespace vole {

class Catalog;
class Categories;
class CollisionWorld;
class CompiledKinds;
class Cues;
class Font;
class SolidGrid;
class SolidThings;
class Travellers;
struct Binding;
struct CompiledKind;
struct SceneCaches;
class World;
struct ShownView;

std::shared_ptr<SceneCaches> make_scene_caches();

// What a scene is run with; all of it outlives the scene.
struct StageSetting {
  CompiledKinds& kinds;
  const SceneTypes& scenes;
  std::shared_ptr<const Controls> controls;
  IVec2 canvas{320, 180};
  int ticks_per_second = 60;
  // What is kept from one scene to the next of the same run, and decides nothing: found anew where it is missing.
  std::shared_ptr<SceneCaches> caches = make_scene_caches();
  const OwnTransitions* transitions = nullptr;  // none: the game has none of its own
  Values* values = nullptr;                     // the same
  const KnownSaves* saves = nullptr;            // the same

  const Binding& binding() const;
};

class Stage : public StageScenes, public StageSequences, public StageSaves {
 public:
  Stage(const StageSetting& setting, World& world, const SceneArgument& argument);
  ~Stage();
  Stage(const Stage&) = delete;
  Stage& operator=(const Stage&) = delete;

  Entities& entities() { return entities_; }
  const Entities& entities() const { return entities_; }
  Camera& camera() { return camera_; }
  const Camera& camera() const { return camera_; }
  // The scene's chance: state, so whoever only looks, as draw() does, cannot ask it.
  Random& random() { return random_; }

  Catalog& catalog() const;
  const Font& font(std::string_view name) const;
  const Input& input() const;
  // Whether an action was pressed within the last seconds and nobody has taken the press; takes it.
  bool take_press(std::string_view action, float within = 0, int player = 1);
  // From the next tick on what is pressed is given by asked_control() alone, and no action or axis hears it; or no more. For screens
  // on which a player chooses keys: see rebinding.hpp.
  void ask_for_control(bool asks = true);
  // The name of the control that was pressed in this tick, as "key KeyX"; empty: none.
  const std::string& asked_control() const;
  // Binds something anew for the player, who finds it so when the game is started again. No state: a replay goes on as recorded.
  void rebind(Rebinding rebinding);
  // Back to what controls.toml says, all of it.
  void forget_rebindings();
  // For the session: what was asked of it since it was taken last.
  Outbox take_outbox();
  int ticks_per_second() const { return setting_.ticks_per_second; }
  float seconds_per_tick() const { return 1.0f / static_cast<float>(setting_.ticks_per_second); }
  // Ticks since the scene began.
  std::int64_t ticks() const;

  // Loads a level and brings the things at its places to life. Throws Error, for all places at once, and then
  // nothing has changed.
  void load_level(std::string_view name);
  // Goes to another level when the tick is over, to a place of it, with these things and all that is attached to them; things without a pose
  // go along. What stays is kept as it is for when the scene comes back, or begins anew then; meanwhile it has no ticks, and what asks for
  // its components finds none. Cues hear of it: Cues::when_arrived. What a traveller touches on arrival it meets when it has left it and comes
  // again, so a door does not lead back at once. A place of a traveller's kind stays empty where the same player steers both. Throws Error with the
  // nearest name.
  SceneChange& go_to_level(std::string_view level, std::string_view place, std::vector<Entity> travellers,
                           LeftBehind left = LeftBehind::kept);
  // Puts a piece (level/pieces.hpp) into the level, by its name or that of a list to choose from. Its top left is then in a cell, or its opening
  // meets that of a side of another piece or of the level itself (0). Returns the piece's number. Throw Error, and then nothing has changed.
  std::uint32_t put_piece(std::string_view name, IVec2 cell);
  std::uint32_t join_piece(std::string_view name, std::uint32_t to, LevelSide side);
  // Takes it away, with all that came with it and does not stay.
  void remove_piece(std::uint32_t piece);
  // The number of the piece that a thing came with; 0 for the level itself.
  std::uint32_t piece_of(Entity entity) const;
  // It stays when its piece leaves.
  void keep(Entity entity);
  bool has_level() const;
  LevelNow& level();
  const LevelNow& level() const;

  // Brings a thing of a kind to life with its feet (or pivot) at a position. Throws Error.
  Entity spawn(std::string_view kind, Vec2 at);
  // The same with a table of components put over the kind's.
  Entity spawn(std::string_view kind, Vec2 at, const TomlValue& over, const FilePosition& asked = {});
  // At the end of the tick, with all that it carries. Until then the thing is there, but has no more
  // meetings.
  void remove(Entity entity) { entities().remove(entity); }
  bool removed(Entity entity) const { return entities().removed(entity); }
  // Attaches a thing to a point of another: it follows the point, and turns and is mirrored with it. Throws
  // Error for a thing without a sprite, for a point it lacks, for things that would be attached to each other,
  // and for more than 256 in a row.
  void attach(Entity thing, Entity to, std::string_view point, Vec2 offset = {0, 0});
  void detach(Entity thing);

  template <class T>
  T& get(Entity entity) {
    return entities().get<T>(entity);
  }
  template <class T>
  const T& get(Entity entity) const {
    return entities().get<T>(entity);
  }
  // The kind's name; empty for what is of none.
  std::string_view kind_of(Entity entity) const;
  // The first thing of a kind that is not removed; none when there is none. These throw Error for an unknown
  // kind.
  Entity first(std::string_view kind) const;
  int count(std::string_view kind) const;
  // Calls visit(entity) for each thing of a kind that is not removed, in the order in which they came to life. For all
  // that have certain components see Entities::visit.
  template <class Visit>
  void each(std::string_view kind, Visit&& visit) {
    expect_kind(kind);
    entities().visit<KindOf>([&](Entity entity, const KindOf& its) {
      if (its.name == kind && !removed(entity)) visit(entity);
    });
  }
  // Whether a thing has a tag; and visit(entity) for each that has and is not removed, in the order in which they got it.
  // Throw Error for a tag that no kind has.
  bool has_tag(Entity entity, std::string_view tag) const;
  template <class Visit>
  void each_tagged(std::string_view tag, Visit&& visit) {
    expect_tag(tag);
    entities().visit<Tags>([&](Entity entity, const Tags& its) {
      if (its.has(tag) && !removed(entity)) visit(entity);
    });
  }
  // The thing that the place of this name brought to life, of the level or of a piece in it; none when it is gone. Both throw Error, with the
  // nearest name, when no place is named so.
  Entity named(std::string_view place, std::uint32_t piece = 0) const;
  // Where that place is, in pixels.
  Vec2 place(std::string_view name, std::uint32_t piece = 0) const;
  // A zone and a path of the level's file, where they are now. Throw Error with the nearest name.
  const LevelZone& zone(std::string_view name) const;
  const LevelPath& path(std::string_view name) const;
  // The same of a piece in it: a copy, for one lies wherever its piece does.
  LevelZone zone(std::string_view name, std::uint32_t piece) const;
  LevelPath path(std::string_view name, std::uint32_t piece) const;

  // The box of a thing's body where it is now. Throws std::out_of_range when it has none.
  Rect box(Entity entity) const;
  bool overlap(Entity a, Entity b) const { return box(a).overlaps(box(b)); }
  // Everything that can be run into and asked for, as it is now: what is in a box, what a ray meets, what a body would hit
  // (collision_world.hpp). To ask many questions, keep what this returns until something moves.
  const CollisionWorld& bodies() const;
  // The thing that an answer is about; none for a tile.
  Entity thing(BodyId body) const;
  // The bits of some categories, for such a question. Throws Error with the nearest name.
  CategoryMask categories(std::initializer_list<std::string_view> names) const;
  // Whether one of the thing's probes (probes.hpp) finds something. Throws Error for a probe that it does not have.
  bool probe(Entity entity, std::string_view name) const;
  // Where the pointer is in the level, and the thing with a body that is uppermost there; none where it is on nothing, or outside
  // of the window. Both throw Error when controls.toml does not say pointer = true.
  Vec2 pointer() const;
  Entity under_pointer() const;
  // The first thing that it finds; none where it finds nothing, or tiles alone.
  Entity found(Entity entity, std::string_view probe) const;
  // Moves a thing's body by so many pixels; what is solid holds it, and it slides along. For movers of a game's own: see
  // body_motion.hpp. Throws std::out_of_range for a thing without a body.
  void move(Entity entity, Vec2 by);
  // What is solid in the level (solid_grid.hpp); nothing without a level.
  const SolidGrid& solid() const;

  // Changes a field of a thing's component over time: see tweening.hpp. Throws Error for a field that is not
  // described, and for a component that the game does not know.
  template <class Component, class Field>
  Tweening<Field> tween(Entity entity, Field Component::*field) {
    return {tweens(), add_tween(entity, described_type<Component>(), index_of_field(field))};
  }

  // The colour behind everything while no level is loaded; a level has its own.
  void set_background(Colour colour);

  // All things stand still for so long: a hit that is felt. The scene with its tick(), timers, camera and labels go on; what
  // a scene moves itself asks frozen(), or is a step of the game's own after one of the things' steps (tick_steps.hpp).
  void freeze(float seconds);
  bool frozen() const;

  // How fast time goes for all things, for one, or for all that are there of a kind or a tag: between 0 and 4 steps a tick, multiplied with one
  // another, from the next tick on (world/own_time.hpp). The scene itself and its timers go on as before.
  void set_time_rate(float rate);
  void set_time_rate(Entity thing, float rate);
  void set_time_rate(const ThingSelector& which, float rate);
  float time_rate() const;
  float time_rate(Entity thing) const;

  // The camera goes along with this thing, from the next tick on; at once when `jump`. Of several it shows the middle, and as
  // much around it as they need.
  void follow(Entity entity, bool jump = true);
  void follow(std::vector<Entity> entities, bool jump = true);
  // Where a thing is on the canvas now, in pixels: for what is shown there, as vole::iris.
  Vec2 on_canvas(Entity entity) const;
  // The camera stays in a zone of the level from now on, and goes over to it in so many seconds; 0: at once. Throws Error with the nearest
  // name.
  void look_within(std::string_view zone, float seconds = 0);
  // Another picture of the scene on a part of the canvas, over those that are there; the camera's own part is `camera.at` and
  // `camera.canvas`. What it follows and shows is set in what is returned, which stays where it is until views are added or removed.
  // Throws Error for a name that is taken; view() with the nearest name.
  ShownView& add_view(std::string_view name, const IRect& part);
  ShownView& view(std::string_view name);
  void remove_view(std::string_view name);

  // A value of the game, which all scenes share: see values.hpp. Throws Error for one that it does not have.
  template <class T>
  T& value() {
    return expect_values(setting_.values).template get<T>();
  }
  template <class T>
  const T& value() const {
    return std::as_const(expect_values(setting_.values)).template get<T>();
  }

  const World& world() const { return world_; }

  // Shows parts of the diagnostic drawing from now on, besides what the player asks for. No state.
  void show_xray(XrayParts parts) { xray_ = parts; }
  XrayParts xray() const { return xray_; }

  // For the steps of a tick; the bodies of things as they were when update_bodies() or bodies() was last called.
  SolidThings& solids();
  const SolidThings& solids() const;
  void update_bodies() const;
  const Categories& categories() const;

 private:
  friend class RunningScene;
  const Probe& probe_of(Entity entity, std::string_view name) const;

  std::vector<Tween>& tweens();
  std::size_t add_tween(Entity entity, const DescribedType& component, std::size_t field);
  void begin_level(LevelNow level, const Travellers& travellers);
  void show_level();
  void forget_left(std::string_view level);
  void arrive(const LevelGoing& going);
  void change_level(const LevelGoing& going, const Travellers& travellers);
  void expect_kind(std::string_view kind) const;
  void expect_tag(std::string_view tag) const;
  // The level's file; throws Error, for a thing of this sort and name that is looked for, without a level.
  const Level& level_with(std::string_view sort, std::string_view name) const;
  const Level& file_with(std::string_view sort, std::string_view name, std::uint32_t piece) const;
  Entity spawn(const CompiledKind& kind, Vec2 at);
  template <class Add>
  std::uint32_t add_piece(std::string_view name, const Add& add);

  const StageSetting& setting_;
  World& world_;
  Entities& entities_;
  Camera& camera_;
  Random& random_;
  XrayParts xray_;
  std::unique_ptr<SolidThings> solids_;  // follows the components whenever it is asked
};

}  // namespace vole
