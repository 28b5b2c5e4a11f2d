// A game as it goes, and nothing around it: scenes, one after the other and over one another, in ticks. It knows no host, no recording and
// no clock, so a test, a tool or another thread can have as many as it likes.
//
//   Simulation simulation(game, setting, seed);
//   simulation.ask_for("beds");
//   while (...) {
//     if (simulation.change()) simulation.make_change();
//     simulation.tick(input);
//   }
//   Snapshot then = simulation.snapshot();
//   simulation.restore(then);                     // as it was, bit for bit
#pragma once

#include <functional>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "vole/app/game.hpp"
#include "vole/base/state.hpp"
#include "vole/scene/known_saves.hpp"
#include "vole/scene/outbox.hpp"
#include "vole/scene/scene_pile.hpp"
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
  // With this argument, which a scene then expects.
  void ask_for(std::string_view scene, SceneArgument argument, const FilePosition& asked = {});
  // What is to be done before the next tick; nullptr when the scenes that are there go on.
  const SceneChange* change() const;
  // Leaves, opens or closes what was asked for. Throws what a scene throws when it is entered, covered, uncovered or left: then the state
  // is that of before the change, and no scene asks for it any more.
  void make_change();
  // Asks again for what could not be done last, when nothing else came of it since. Returns whether there was anything.
  bool ask_again();

  // One tick, when no change is due. Throws what the scene throws, and std::logic_error before the first scene.
  void tick(const TickInput& input);
  std::int64_t ticks() const { return ticks_; }

  // Of the state at the end of the last tick, before a change of scene takes place: however long the next
  // scene takes to load, the same run has the same checksum. It covers how each scene before this one ended.
  std::uint64_t checksum() const;

  // What the scenes have asked of the outside since this was taken last, with what is to be saved as it is now. Who does not take it leaves
  // it.
  Outbox take_outbox();
  // What came from outside: between two ticks, when no change is due, or before the first scene. Returns what nobody in the game hears of: what
  // could not be done where no scene has a cue for it (Cues::when_saved).
  std::vector<Problem> arrive(const Arrived& arrived);

  // What all scenes share.
  const Values& values() const { return values_; }

  // Between two ticks.
  Snapshot snapshot() const;
  // Throws Error when the state needs what the game's files do not have any more; then nothing has changed.
  void restore(const Snapshot& snapshot);
  // The same as TOML: for files, for other builds, and to compare (state_difference.hpp).
  std::string to_toml() const;
  void restore_toml(const TomlValue& toml);

  // The scenes as they lie over one another; to draw them: `share` of the way between the last tick and the next.
  ScenePile& pile() { return pile_; }
  const ScenePile& pile() const { return pile_; }
  // The uppermost of them. Only once a scene was entered.
  const Stage& stage() const { return pile_.top().stage(); }
  Stage& stage() { return pile_.top().stage(); }
  std::string_view scene_name() const { return running() ? std::string_view(running()->type().name) : ""; }
  const RunningScene* running() const { return pile_.empty() ? nullptr : &pile_.top(); }

  // After the files have changed: these controls, and the kinds in use as they are written now, also where a thing's
  // numbers come from them; what is wrong with them goes to the report.
  void use(std::shared_ptr<const Controls> controls);
  void recompile_kinds(Report& report);

 private:
  struct StateHead;
  template <class V>
  friend void describe(V& v, StateHead& head);
  StateHead head() const;
  std::uint64_t passing_seed() const;
  void undo_change(const Snapshot& before);
  // Has values and scenes read and bound, and puts them in place of what is there.
  void take(const StateHead& head, const std::function<SceneArgument(const SceneType& first)>& read_first,
            const std::function<void(Values& values, KnownSaves& saves)>& read_values,
            const std::function<std::shared_ptr<ScenePile::Scenes>()>& read);

  void arrive(const ArrivedSave& value);
  // Values, and the scenes where it holds some. Throws Error, and then nothing has changed.
  void bring_back(const ArrivedSave& saved);
  void put(const Values& values);

  const Game& game_;
  Binding binding_;
  CompiledKinds kinds_;
  Values values_;
  KnownSaves saves_;
  StageSetting stage_setting_;
  std::optional<SceneChange> first_;  // until the first scene is entered
  ScenePile pile_;
  // What could not be done, and which scene had asked for it. No state.
  std::optional<SceneChange> failed_;
  std::size_t failed_for_ = 0;
  std::int64_t ticks_ = 0;
  std::int64_t changed_at_ = 0;  // ticks, when scenes changed last
  Random chance_;                // seeds the scenes
  std::uint64_t history_ = 0;    // how the scenes were before they changed
  // Values between runs as they were handed out last, by their places. No state.
  std::vector<StateBytes> kept_;
  StateWriter kept_now_;
};

}  // namespace vole
