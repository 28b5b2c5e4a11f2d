#include "state_target.hpp"

#include <memory>
#include <optional>

#include "vole/app/simulation.hpp"
#include "vole/asset/catalog.hpp"
#include "vole/asset/font.hpp"
#include "vole/base/state.hpp"
#include "vole/base/toml_value.hpp"
#include "vole/input/controls.hpp"
#include "vole/level/kinds.hpp"
#include "vole/vole.hpp"
#include "vole/world/side_mover.hpp"
#include "vole/world/sprite.hpp"

namespace {

// Has a bit of everything that a state holds under way.
class Garden : public vole::Scene {
 public:
  void enter(vole::Stage& stage) override {
    stage.load_level("patch");
    const vole::Entity runner = stage.spawn("runner", {6, 2});
    const vole::Entity mouse = stage.first("mouse");
    stage.follow(runner);
    stage.tween(mouse, &vole::Sprite::opacity).to(0.5f, 2).then(1, 1).then_tell("bell");
    stage.after(3, "bell", mouse, 1);
    stage.every(0.2f, "bell", runner, {.spread = 0.1f, .times = 9});
    stage.start_sequence("errand",
                         vole::Steps()
                             .together({vole::Steps().go({9, 4}, 3).named("off"), vole::Steps().say("So."),
                                        vole::Steps().wait_until({"grounded"}).wait_for("bell"),
                                        vole::Steps().tween(&vole::Sprite::depth, 2.0f, 1).play("run")})
                             .repeat(0, vole::Steps().wait(0.02f).tell("bell"))
                             .hurried_by("jump"),
                         mouse);
    stage.start_sequence("clock", vole::Steps().repeat(3, vole::Steps().wait(0.05f)));
    stage.set_time_rate(0.75f);
    stage.set_time_rate(mouse, 2);
    stage.attach(stage.spawn("mouse", {3, 3}), runner, "paw");
    stage.level().put("ground", {1, 0}, "grass");
    stage.get<vole::Sprite>(runner).play_track("t");
    runner_ = runner;
  }
  void cues(vole::Cues& cues) override {
    cues.when_told("bell", [this](vole::Stage&) { ++bells_; });
    cues.when_meet("runner", "mouse", [this](vole::Stage&, vole::Entity, vole::Entity) { ++bells_; });
    cues.when_event("runner", "step", [this](vole::Stage&, vole::Entity) { ++bells_; });
    cues.every(0.05f, [this](vole::Stage& stage) {
      if (!stage.removed(runner_)) stage.get<vole::Sprite>(runner_).face({1, -1});
    });
  }
  template <class V>
  friend void describe(V& v, Garden& garden) {
    v.state("bells", garden.bells_);
    v.state("runner", garden.runner_);
    v.state("notes", garden.notes_);
  }

 private:
  int bells_ = 0;
  vole::Entity runner_;
  std::vector<std::string> notes_{"one", "two"};
};

struct Purse {
  int coins = 3;
  std::vector<std::string> things{"twine"};
};
template <class V>
void describe(V& v, Purse& purse) {
  v.state("coins", purse.coins);
  v.state("things", purse.things);
}

// One for the process: its files stay as they were when it began.
struct Rig {
  vole::Game game{"game.toml"};
  vole::Catalog catalog;
  vole::Kinds kinds;
  std::shared_ptr<const vole::Controls> controls;

  explicit Rig(const std::string& folder)
      : catalog(folder),
        kinds(vole::read_kinds(folder)),
        controls(std::make_shared<const vole::Controls>(vole::read_controls(folder + "/controls.toml"))) {
    game.scene<Garden>("garden").value<Purse>("purse").value<vole::HighScores>("best",
                                                                               vole::join_high_scores);
  }
  vole::Simulation fresh() {
    return {game, vole::SimulationSetting{catalog, kinds, controls, {64, 32}, 60}, 5};
  }
};
std::optional<Rig> rig;

// Whatever the state holds, what goes wrong in it is thrown.
void play_and_draw(vole::Simulation& simulation) {
  vole::DrawList list;
  const vole::TickInput input(*rig->controls);
  try {
    for (int tick = 0; tick < 4; ++tick) {
      if (simulation.change()) simulation.make_change();
      if (!simulation.running()) return;
      simulation.tick(input);
      list.start({64, 32});
      simulation.pile().draw(list, 0.5f);
      static_cast<void>(simulation.checksum());
    }
  } catch (const vole::Error&) {
  } catch (const std::out_of_range&) {
  }
}

}  // namespace

void write_state_samples(const std::string& folder) {
  rig.emplace(folder);
  vole::Simulation simulation = rig->fresh();
  simulation.ask_for("garden");
  simulation.make_change();
  for (int tick = 0; tick < 20; ++tick) simulation.tick(vole::TickInput(*rig->controls));
  const vole::Snapshot snapshot = simulation.snapshot();
  vole::write_whole(folder + "/a.snapshot",
                    {reinterpret_cast<const char*>(snapshot.bytes.data()), snapshot.bytes.size()});
  vole::write_whole(folder + "/a.state.toml", simulation.to_toml());
  simulation.stage().save("one", {.scenes = true});
  vole::write_whole(folder + "/a.saved.toml", simulation.take_outbox().saves[0].holds);
}

void load_snapshot(std::string_view bytes) {
  vole::Simulation simulation = rig->fresh();
  simulation.restore({vole::StateBytes(bytes.begin(), bytes.end())});
  play_and_draw(simulation);
}

void load_written_state(std::string_view bytes) {
  vole::Simulation simulation = rig->fresh();
  simulation.restore_toml(vole::parse_toml(bytes, "a.state.toml"));
  play_and_draw(simulation);
}

void load_saved(std::string_view bytes) {
  vole::Simulation simulation = rig->fresh();
  simulation.ask_for("garden");
  simulation.make_change();
  vole::Arrived arrived;
  const vole::ArrivedSave saved{"one", 1, std::string(bytes)};
  arrived.values = {{"best", 1, saved.holds}};
  arrived.saved = saved;
  // What is wrong with it is told, and thrown here for whoever counts what was refused.
  const std::vector<vole::Problem> unheard = simulation.arrive(arrived);
  play_and_draw(simulation);
  if (!unheard.empty()) throw vole::Error(unheard);
}
