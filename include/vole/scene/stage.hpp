// What a running scene works on: its entities, level, camera, input, chance and assets.
//
//   stage.load_level("beds");
//   stage.when_meet("vole", "bulb", [&](Entity, Entity bulb) { stage.remove(bulb); });
//   if (stage.input().pressed("pause")) stage.go("title");
#pragma once

#include <any>
#include <deque>
#include <functional>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "vole/asset/font.hpp"
#include "vole/base/random.hpp"
#include "vole/draw/camera.hpp"
#include "vole/draw/draw_list.hpp"
#include "vole/input/tick_input.hpp"
#include "vole/level/kinds.hpp"
#include "vole/level/level.hpp"
#include "vole/scene/component_types.hpp"
#include "vole/scene/components.hpp"
#include "vole/scene/entities.hpp"
#include "vole/scene/tween.hpp"

namespace vole {

// What a stage is given by the game that runs it; all of it outlives the stage.
struct StageSetting {
  Catalog& catalog;
  const Kinds& kinds;
  const ComponentTypes& types;
  IVec2 canvas{320, 180};
  int ticks_per_second = 60;
};

// What a scene asked to come next.
struct SceneChange {
  std::string scene;
  std::any carried;
};

class Stage {
 public:
  using Meeting = std::function<void(Entity, Entity)>;

  Stage(const StageSetting& setting, std::uint64_t seed);
  Stage(const Stage&) = delete;
  Stage& operator=(const Stage&) = delete;

  Entities entities;
  Camera camera;
  Random random;

  Catalog& catalog() const { return setting_.catalog; }
  const Font& font(std::string_view name) const { return *catalog().get<Font>(name); }
  const TickInput& input() const { return *input_; }
  int ticks_per_second() const { return setting_.ticks_per_second; }
  float seconds_per_tick() const { return 1.0f / static_cast<float>(setting_.ticks_per_second); }
  // Ticks since the scene began.
  std::int64_t tick_count() const { return ticks_; }

  // Loads a level and brings the things at its places to life. Throws Error, for all places at once.
  void load_level(std::string_view name);
  bool has_level() const { return static_cast<bool>(level_); }
  const Level& level() const { return *level_; }

  // Brings a thing of a kind to life with its feet (or pivot) at a position; `over` is a table of components
  // to put over the kind's. Throws Error.
  Entity spawn(std::string_view kind, Vec2 at, const Node& over = {}, const Place& asked = {});
  // At the end of the tick. Until then the thing is there, but meets nobody any more.
  void remove(Entity entity);
  // Hangs a thing from a point of another: it goes where the point goes, and turns and flips along. Throws
  // Error for a thing without a sprite, for a point it lacks, and for things that would hang from each other.
  void attach(Entity thing, Entity to, std::string_view point, Vec2 offset = {0, 0});
  void detach(Entity thing);
  bool removed(Entity entity) const;

  template <class T>
  T& get(Entity entity) {
    return entities.get<T>(entity);
  }
  template <class T>
  const T& get(Entity entity) const {
    return entities.get<T>(entity);
  }
  // The first living thing of a kind; none when there is none.
  Entity first(std::string_view kind) const;
  int count(std::string_view kind) const;

  // Calls back once when bodies of these kinds begin to overlap. Throws Error for an unknown kind.
  void when_meet(std::string_view kind, std::string_view other, Meeting meeting);

  // Calls back when a clip of a thing of this kind comes to an event, once for each time it does, after all
  // have moved on: the handler may change the clip, remove the thing or begin a scene. Throws Error for an
  // unknown kind.
  void when_event(std::string_view kind, std::string_view event, std::function<void(Entity)> handler);

  // Changes a field of a thing's component over time: see tween.hpp.
  template <class Component, class Field>
  Tween<Component, Field>& tween(Entity entity, Field Component::*field) {
    return tweens_.add(entity, field);
  }
  // All things stand still for so long: a hit that is felt. The scene, its camera and its labels go on.
  void freeze(float seconds);
  bool frozen() const { return frozen_ticks_ > 0; }

  // The camera goes along with this thing, from the next tick on; at once when `jump`.
  void follow(Entity entity, bool jump = true);

  // Another scene from the next tick on, with something for it to take up with brought<T>().
  void go(std::string_view scene, std::any carried = {});
  // What the scene before sent along; nullptr when it sent no T.
  template <class T>
  const T* brought() const {
    return std::any_cast<T>(&brought_);
  }

  // Adds everything the simulation holds to a checksum.
  void add_to(Hash& hash) const;

  // For the game that runs the stage: one tick around the scene's own, and what comes of it.
  void begin_tick(const TickInput& input);
  void end_tick();
  const SceneChange* change() const { return change_ ? change_.get() : nullptr; }
  void bring(std::any carried) { brought_ = std::move(carried); }
  // Adds the level's layers and all sprites to the list, in the level's order, and returns the layer above
  // them all.
  LayerId draw(DrawList& list, float between) const;
  // The layer that Stage::draw made for the level's layer of this name. Throws Error with the nearest name.
  LayerId layer(std::string_view name) const;
  // The shapes over the picture: bodies, pivots, solid cells.
  void draw_xray(DrawList& list, float between) const;

 private:
  struct KindOf {
    std::string name;
  };
  struct MeetingRule {
    std::string kind, other;
    Meeting meeting;
    std::vector<std::pair<Entity, Entity>> now;  // overlapping at the end of the last tick
    std::vector<std::pair<Entity, Entity>> before;
  };

  // Where a sprite is drawn and how it is turned.
  struct Placement {
    Vec2 at{0, 0};
    Vec2 scale{1, 1};
    float rotation = 0;
    bool flip_x = false;
    bool flip_y = false;
    Colour tint = white;
    float opacity = 1;
  };

  // A field that tracks show otherwise than it is, until the next tick.
  struct ShownField {
    Entity entity;
    const ComponentTypes::Type* type = nullptr;
    std::size_t index = 0;
    FieldRef::Bytes own;
  };

  struct EventRule {
    std::string kind, event;
    std::function<void(Entity)> handler;
  };
  struct Happened {
    Entity entity;
    std::string_view event;    // of the clip, which outlives the tick
    std::uint32_t starts = 0;  // of the animator: another clip since then makes it stale
  };

  void check_tracks(const Sheet& sheet) const;
  void bind(Sprite& sprite);
  void follow_rules(Sprite& sprite, const Body* body);
  void tell_events();
  void show_fields();
  void show_fields(Entity entity, const Track& track, std::int64_t ticks, float strength);
  void put_fields_back();
  void bring_carried(Entity entity, const Pose& pose);
  int frame_of_sprite(const Sprite& sprite) const;
  // Tracks change what is shown and never where a thing is.
  enum class Tracks { shown, left_out };
  Placement placement(Entity entity, float between, Tracks tracks) const;
  void place_on_point(const Attached& attached, float between, Tracks tracks, Placement& place) const;
  void carry_along();
  void draw_layer(DrawList& list, LayerId id, const LevelLayer& layer) const;
  void take_new_level();
  void keep_out_of_walls();
  void pilot();
  void move();
  void meet();
  void meet(MeetingRule& rule);
  void animate();
  void aim_camera();
  void sweep_out();
  std::string_view kind_of(Entity entity) const;
  void add_sprite(DrawList& list, Entity entity, const Sprite& sprite, float between) const;

  StageSetting setting_;
  const TickInput* input_;
  std::int64_t ticks_ = 0;
  Asset<Level> level_;
  int level_version_ = 0;
  std::vector<LevelPlace> places_;  // of the level's version that is in use
  int carrying_ = 0;                // how deep in things that carry things a spawn is
  std::vector<Entity> leaving_;
  std::deque<MeetingRule>
      meetings_;  // a deque: a meeting may add rules, and those there must stay where they are
  Tweens tweens_;
  int frozen_ticks_ = 0;
  std::deque<EventRule> event_rules_;
  std::vector<Happened> happened_;
  std::vector<ShownField> shown_fields_;
  Entity followed_;
  std::unique_ptr<SceneChange> change_;
  std::any brought_;
};

}  // namespace vole
