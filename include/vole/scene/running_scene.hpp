// A scene and the world it works on: entered, ticked, drawn, written and read.
//
//   RunningScene running(setting, steps, scenes.get("beds"), SceneArgument(), seed);
//   running.enter();
//   running.tick(input);
//   running.draw(list, between);
#pragma once

#include <memory>
#include <optional>

#include "vole/draw/draw_list.hpp"
#include "vole/scene/cues.hpp"
#include "vole/scene/pictures/xray.hpp"
#include "vole/scene/scene_types.hpp"
#include "vole/scene/shown.hpp"
#include "vole/scene/stage.hpp"
#include "vole/scene/tick_steps.hpp"
#include "vole/world/world.hpp"

namespace vole {

struct Tick;
struct TickMemory;
class SceneLight;

class RunningScene {
 public:
  // All but the argument must outlive this.
  RunningScene(const StageSetting& setting, const TickSteps& steps, const SceneType& type,
               SceneArgument argument, std::uint64_t seed);
  ~RunningScene();
  RunningScene(const RunningScene&) = delete;
  RunningScene& operator=(const RunningScene&) = delete;

  // Begins: Scene::enter, then its cues.
  void enter();
  void tick(const TickInput& input);
  void covered() { scene_->covered(stage_); }
  void uncovered() { scene_->uncovered(stage_); }
  void leave() { scene_->leave(stage_); }
  // Calls the cues for the closing of a scene that lay over this one. Returns whether there was one for what it hands back.
  bool hear_closed(const SceneType& closed, const SceneArgument& result);
  // Has its cues told of it in its next tick. Returns whether it has any.
  bool hear_answer(const SaveAnswer& answer);
  // Goes to another level, and calls the cues for that.
  void go_to_level(const LevelGoing& going);
  // What it has asked to come when the tick is over; nullptr when nothing.
  const SceneChange* change() const { return stage_.change_ ? &*stage_.change_ : nullptr; }
  void ask(std::optional<SceneChange> change) { stage_.change_ = std::move(change); }
  // Where it lies among others.
  void lie(bool covered, bool covers, int in_pile);
  // Changed files, while it has no ticks.
  void take_files();

  // Adds level, things, the parts of the xray that are asked for and what the scene draws to the list, over what is in it already or
  // before its own sky. Between the call and its end fields show what tracks make of them; afterwards nothing has changed.
  enum class Before : std::uint8_t { sky, others };
  void draw(DrawList& list, float share, XrayParts xray = {}, Before before = Before::sky);
  // Behind everything.
  Colour sky() const;

  // The world, the scene's own members, what it was given and what it asked for.
  void write(StateWriter& out) const;
  void read(StateReader& in);
  // `within` is before the names of its tables: "scenes.".
  std::string to_toml(std::string_view within = "") const;
  void from_toml(const TomlValue& toml, Report& report);
  // After reading: finds what the state names, and has the scene say its cues.
  void bind();

  Stage& stage() { return stage_; }
  const Stage& stage() const { return stage_; }
  World& world() { return world_; }
  const World& world() const { return world_; }
  const Scene& scene() const { return *scene_; }
  const SceneType& type() const { return type_; }
  const SceneArgument& argument() const { return argument_; }

 private:
  void say_cues();
  void watch_values();
  Tick make_tick();
  void run(const TickStep& step, Tick& tick);
  void draw_shown(Drawing& drawing) const;
  void draw_stage(DrawList& list, float share, Before before) const;
  void draw_views(DrawList& list, float share) const;
  void draw_view(DrawList& list, const Camera& camera, const ShownView* only, SceneLight& light, float share,
                 Before before) const;
  void add_light(DrawList& list, LayerId first, const Camera& camera, SceneLight& light, float share) const;

  const StageSetting& setting_;
  const TickSteps& steps_;
  const SceneType& type_;
  SceneArgument argument_;
  World world_;
  Stage stage_;
  std::unique_ptr<Scene> scene_;
  Cues cues_;
  Shown shown_;
  std::vector<Watched*> watched_;       // of both, in their order
  std::unique_ptr<TickMemory> memory_;  // memory of the steps, kept so that a steady tick allocates nothing
};

}  // namespace vole
