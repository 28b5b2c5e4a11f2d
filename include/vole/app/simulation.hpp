// A game as it goes, and nothing around it: scenes, one after the other, in ticks. It knows no host, no recording and
// no clock, so a test, a tool or another thread can have as many as it likes.
//
//   Simulation simulation(game, setting, seed);
//   simulation.ask_for("beds");
//   while (...) {
//     if (simulation.change()) simulation.enter();
//     simulation.tick(input);
//   }
//   Snapshot then = simulation.snapshot();
//   simulation.restore(then);                     // as it was, bit for bit
#pragma once

#include <functional>
#include <memory>
#include <optional>
#include <string>

#include "vole/app/game.hpp"
#include "vole/base/state.hpp"
#include "vole/scene/outbox.hpp"
#include "vole/scene/running_scene.hpp"
#include "vole/world/compiled_kinds.hpp"

namespace vole {

// All of it must outlive the simulation.
struct SimulationSetting {
  Catalog& catalog;
  const Kinds& kinds;
  std::shared_ptr<const Controls> controls;
  IVec2 canvas{320, 180};
  int ticks_per_second = 60;
};

// The whole state at one moment; good for simulations of the same build and game.
struct Snapshot {
  StateBytes bytes;
};

class Simulation {
 public:
  // `game` must outlive this.
  Simulation(const Game& game, const SimulationSetting& setting, std::uint64_t seed);
  Simulation(const Simulation&) = delete;
  Simulation& operator=(const Simulation&) = delete;

  // The scene to begin with. Throws Error at `asked` with the nearest name.
  void ask_for(std::string_view scene, const FilePosition& asked = {});
  // The scene that is to come before the next tick; nullptr when the one there goes on.
  const SceneChange* change() const;
  // Leaves the scene and begins the one that was asked for. Throws what Scene::enter throws; the scene is
  // then entered only in part, and no tick must come before enter_again() has done it.
  void enter();
  bool half_entered() const { return half_entered_; }
  // Begins the current scene again, with the argument it had.
  void enter_again();

  // One tick, when no change is due. Throws what the scene throws, and std::logic_error before the first scene.
  void tick(const TickInput& input);
  std::int64_t ticks() const { return ticks_; }

  // Of the state at the end of the last tick, before a change of scene takes place: however long the next
  // scene takes to load, the same run has the same checksum. It covers how each scene before this one ended.
  std::uint64_t checksum() const;

  // What the scene has asked of the outside since this was taken last. Who does not take it leaves it.
  Outbox take_outbox() { return running_ ? running_->stage().take_outbox() : Outbox(); }

  // Between two ticks.
  Snapshot snapshot() const;
  // Throws Error when the state needs what the game's files do not have any more; then nothing has changed.
  void restore(const Snapshot& snapshot);
  // The same as TOML: for files, for other builds, and to compare (state_difference.hpp).
  std::string to_toml() const;
  void restore_toml(const TomlValue& toml);

  // Adds the scene as it stands to the list, `share` of the way between the last tick and the next.
  void draw(DrawList& list, float share, XrayParts xray = {});
  Colour sky() const { return running_->sky(); }

  // Only once a scene was entered.
  const Stage& stage() const { return running_->stage(); }
  Stage& stage() { return running_->stage(); }
  std::string_view scene_name() const { return running_ ? std::string_view(running_->type().name) : ""; }
  const RunningScene* running() const { return running_.get(); }

  // After the files have changed: these controls, and the kinds in use as they are written now, also where a thing's
  // numbers come from them; what is wrong with them goes to the report.
  void use(std::shared_ptr<const Controls> controls);
  void recompile_kinds(Report& report);

 private:
  std::unique_ptr<RunningScene> make(std::string_view scene, SceneArgument argument,
                                     std::uint64_t seed) const;
  struct StateHead;
  template <class V>
  friend void describe(V& v, StateHead& head);
  StateHead head() const;
  // Makes the scene that the head names, has it read and bound, and puts it in place of what is there.
  void take(const StateHead& head, const std::function<void(RunningScene&)>& read);

  const Game& game_;
  Binding binding_;
  CompiledKinds kinds_;
  StageSetting stage_setting_;
  std::optional<SceneChange> first_;  // until the first scene is entered
  std::unique_ptr<RunningScene> running_;
  bool half_entered_ = false;
  std::int64_t ticks_ = 0;
  Random chance_;              // seeds the scenes
  std::uint64_t history_ = 0;  // how each scene before this one ended
};

}  // namespace vole
