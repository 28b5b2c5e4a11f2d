// State that is kept and restored: as bytes, as a file, by another process; and compared.
#include <cstdlib>

#include "allotment.hpp"
#include "milkround.hpp"
#include "support.hpp"
#include "towpath.hpp"
#include "vole/app/project.hpp"
#include "vole/app/session.hpp"
#include "vole/app/simulation.hpp"
#include "vole/app/state_difference.hpp"
#include "vole/base/names.hpp"
#include "vole/input/input_reader.hpp"
#include "vole/input/recording.hpp"
#include "vole/world/motion.hpp"
#include "vole/world/side_mover.hpp"

namespace {

vole::Game game_of(const std::string& id) {
  if (id == "milkround") return milkround();
  return id == "towpath" ? towpath() : allotment();
}

// A game without a session: what a simulation needs, and the inputs of a recording.
struct Played {
  vole::Recording recording;
  vole::Game game = game_of(recording.game);
  vole::Project project = vole::read_project(source_folder() + "/examples/" + recording.game + "/game.toml");
  vole::Catalog catalog{project.root};
  vole::Kinds kinds = vole::read_kinds(project.root, project.categories);
  std::shared_ptr<const vole::Controls> controls =
      std::make_shared<const vole::Controls>(vole::read_controls(project.root + "/controls.toml"));
  std::vector<vole::TickInput> inputs;
  std::unique_ptr<vole::Simulation> simulation;

  explicit Played(const std::string& file) : recording(vole::read_recording(file)) {
    vole::InputReader reader(recording, *controls);
    for (std::int64_t i = 0; i < recording.ticks; ++i) inputs.push_back(reader.next());
    simulation = fresh();
  }
  std::unique_ptr<vole::Simulation> fresh() const {
    return std::make_unique<vole::Simulation>(
        game,
        vole::SimulationSetting{const_cast<vole::Catalog&>(catalog), kinds, controls, project.canvas,
                                project.ticks_per_second},
        recording.seed);
  }
  std::string first() const { return recording.scene.value_or(project.first_scene.value); }
  void start() { simulation->ask_for(first()); }
  // Plays on to this tick, and hands each checksum on the way to `see`.
  template <class See>
  void play_to(vole::Simulation& in, std::int64_t tick, const See& see) const {
    while (in.ticks() < tick) {
      if (in.change()) in.make_change();
      in.tick(inputs[static_cast<std::size_t>(in.ticks())]);
      see(in.ticks(), in.checksum());
    }
  }
  void play_to(vole::Simulation& in, std::int64_t tick) const {
    play_to(in, tick, [](std::int64_t, std::uint64_t) {});
  }
};

std::vector<std::string> shipped_runs() {
  std::vector<std::string> runs;
  for (const std::string& game : vole::list_files(source_folder() + "/examples"))
    if (game.ends_with(".run")) runs.push_back(source_folder() + "/examples/" + game);
  return runs;
}

vole::TomlValue state_of(const vole::Simulation& simulation) {
  return vole::parse_toml(simulation.to_toml(), "state");
}

// However odd the state is, whatever goes wrong in it is thrown.
void play_and_draw(vole::Simulation& simulation, const std::vector<vole::TickInput>& inputs) {
  try {
    vole::DrawList list;
    for (std::size_t tick = 500; tick < 503 && !simulation.change(); ++tick) {
      simulation.tick(inputs[tick]);
      list.start({320, 180});
      simulation.pile().draw(list, 0.5f);
    }
  } catch (const std::exception&) {
  }
}

}  // namespace

TEST_CASE("a snapshot of any tick of a shipped run goes on to the same end in a fresh simulation") {
  REQUIRE_FALSE(shipped_runs().empty());
  for (const std::string& file : shipped_runs()) {
    Played played(file);
    played.start();
    vole::Random chance(3);
    std::map<std::int64_t, vole::Snapshot> taken;
    std::map<std::int64_t, std::string> written;
    for (int i = 0; i < 12; ++i) taken[chance.below(static_cast<std::uint32_t>(played.recording.ticks))];
    std::vector<std::uint64_t> checksums(static_cast<std::size_t>(played.recording.ticks) + 1);
    for (auto& [tick, snapshot] : taken) {
      played.play_to(*played.simulation, tick, [&](std::int64_t at, std::uint64_t sum) {
        checksums[static_cast<std::size_t>(at)] = sum;
      });
      snapshot = played.simulation->snapshot();
      written[tick] = played.simulation->to_toml();
    }
    played.play_to(*played.simulation, played.recording.ticks, [&](std::int64_t at, std::uint64_t sum) {
      checksums[static_cast<std::size_t>(at)] = sum;
    });
    CHECK(vole::checksum_text(checksums.back()) == played.recording.checksum.value);

    for (const auto& [tick, snapshot] : taken) {
      CAPTURE(file, tick);
      const auto by_bytes = played.fresh(), by_text = played.fresh();
      by_bytes->restore(snapshot);
      by_text->restore_toml(vole::parse_toml(written[tick], "state"));
      REQUIRE(by_bytes->snapshot().bytes == snapshot.bytes);
      // Both ways of writing hold the same, to the last bit.
      REQUIRE(by_text->snapshot().bytes == snapshot.bytes);
      REQUIRE(by_text->to_toml() == written[tick]);
      for (vole::Simulation* simulation : {by_bytes.get(), by_text.get()})
        played.play_to(*simulation, std::min(tick + 400, played.recording.ticks),
                       [&](std::int64_t at, std::uint64_t sum) {
                         REQUIRE(sum == checksums[static_cast<std::size_t>(at)]);
                       });
    }
  }
}

namespace {

// The inputs of a run with pauses of random lengths in between, at random ticks.
std::vector<vole::TickInput> with_pauses(const Played& played, vole::Random& chance, int& pauses) {
  const auto press = [](vole::TickInput& input) {
    const std::size_t index = vole::index_named(input.controls()->actions, "pause");
    input.players[0].actions[index].presses = 1;
  };
  std::vector<vole::TickInput> inputs;
  const auto simulation = played.fresh();
  simulation->ask_for(played.first());
  const auto tick = [&](const vole::TickInput& input) {
    if (simulation->change()) simulation->make_change();
    inputs.push_back(input);
    simulation->tick(input);
    if (simulation->change()) simulation->make_change();
  };
  for (const vole::TickInput& recorded : played.inputs) {
    vole::TickInput input = recorded;
    const bool tries = chance.chance(0.01f) && simulation->pile().size() == 1;
    if (tries) press(input);
    tick(input);
    if (!tries || simulation->scene_name() != "pause") continue;
    ++pauses;
    for (vole::TickInput::Player& player : input.players)
      for (auto& action : player.actions) action = {action.held, 0, 0};
    for (std::uint32_t i = 0; i < chance.below(20); ++i) tick(input);
    press(input);
    tick(input);
    REQUIRE(simulation->pile().size() == 1);
  }
  return inputs;
}

}  // namespace

TEST_CASE(
    "a shipped run with pauses comes to the same things, and is kept and restored in the middle of all of "
    "them") {
  for (const std::string& file : shipped_runs()) {
    CAPTURE(file);
    Played played(file);
    played.start();
    played.play_to(*played.simulation, played.recording.ticks);
    const std::string end = played.simulation->running()->world().entities.to_toml();
    vole::Random chance(11);
    int pauses = 0, restores = 0;
    played.inputs = with_pauses(played, chance, pauses);
    CHECK(pauses > 10);
    auto straight = played.fresh(), restored = played.fresh();
    for (vole::Simulation* each : {straight.get(), restored.get()}) each->ask_for(played.first());
    for (const vole::TickInput& input : played.inputs) {
      for (vole::Simulation* each : {straight.get(), restored.get()}) {
        if (each->change()) each->make_change();
        each->tick(input);
      }
      const bool between = restored->pile().size() > 1 || restored->pile().transition();
      if (!chance.chance(between ? 0.2f : 0.01f)) continue;
      auto other = played.fresh();
      if (chance.chance(0.2f))
        other->restore_toml(vole::parse_toml(restored->to_toml(), "state"));
      else
        other->restore(restored->snapshot());
      restored = std::move(other);
      REQUIRE(restored->checksum() == straight->checksum());
      ++restores;
    }
    CHECK(restores > 20);
    CHECK(restored->checksum() == straight->checksum());
    CHECK(restored->running()->world().entities.to_toml() == end);
  }
}

TEST_CASE("every scene of every example is begun with by its name") {
  for (const char* id : {"allotment", "milkround", "towpath"}) {
    const vole::Game game = game_of(id);
    for (const vole::SceneType& type : game.scenes().all()) {
      CAPTURE(id, type.name);
      vole::Options options;
      options.first.scene = type.name;
      vole::HeadlessHost host(60);
      vole::Session session(game, vole::read_project(source_folder() + "/examples/" + id + "/game.toml"),
                            options, host);
      for (int i = 0; i < 30; ++i) session.tick();
      CHECK(session.scene_name() == type.name);
      CHECK_FALSE(session.draw(1).empty());
      CHECK(session.trouble().empty());
    }
  }
}

// Called by the test below, in a process of its own.
TEST_CASE("another process plays a written state on", "[.other-process]") {
  Played played(allotment_folder() + "/recordings/harvest.run");
  played.simulation->restore_toml(vole::read_toml(variable("VOLE_STATE_FILE")));
  played.play_to(*played.simulation, played.recording.ticks);
  CHECK(vole::checksum_text(played.simulation->checksum()) == played.recording.checksum.value);
}

TEST_CASE("a state in a file is played on by another process") {
  Played played(allotment_folder() + "/recordings/harvest.run");
  played.start();
  played.play_to(*played.simulation, 700);
  TempFolder folder;
  folder.write("beds.state.toml", played.simulation->to_toml());
  const auto other = [&] {
    return run_command("VOLE_SOURCE=" + as_word(source_folder()) +
                       " VOLE_STATE_FILE=" + as_word(folder.path("beds.state.toml")) + " " +
                       as_word(program_of_test()) + " '[.other-process]'");
  };
  const Ran ran = other();
  CAPTURE(ran.output);
  CHECK(ran.code == 0);
  // It does tell when the state is another one.
  std::string changed = played.simulation->to_toml();
  const std::size_t at = changed.find("gathered = ");
  REQUIRE(at != std::string::npos);
  changed[at + 11] = changed[at + 11] == '9' ? '8' : '9';
  folder.write("beds.state.toml", changed);
  CHECK(other().code != 0);
}

TEST_CASE("what is in no snapshot is in no checksum: any other bit of one is another checksum") {
  Played played(allotment_folder() + "/recordings/harvest.run");
  played.start();
  played.play_to(*played.simulation, 500);
  const vole::Snapshot snapshot = played.simulation->snapshot();
  vole::Random chance(8);
  int changed = 0;
  for (int round = 0; round < 400; ++round) {
    vole::Snapshot other = snapshot;
    unsigned char& byte = other.bytes[chance.below(static_cast<std::uint32_t>(other.bytes.size()))];
    byte = static_cast<unsigned char>(byte ^ (1u << chance.below(8)));
    const auto simulation = played.fresh();
    try {
      simulation->restore(other);
    } catch (const vole::Error&) {
      // A name that is not there, or a count beyond the end. Nothing has happened then.
      REQUIRE(simulation->running() == nullptr);
      continue;
    }
    // A bool of two is true as one is, and what is bound again is as its names say.
    if (simulation->snapshot().bytes == snapshot.bytes) continue;
    ++changed;
    REQUIRE(simulation->checksum() != played.simulation->checksum());
    play_and_draw(*simulation, played.inputs);
  }
  CHECK(changed > 200);
  // Cut off anywhere, it is refused and changes nothing.
  for (int round = 0; round < 100; ++round) {
    vole::Snapshot cut = snapshot;
    cut.bytes.resize(chance.below(static_cast<std::uint32_t>(cut.bytes.size())));
    REQUIRE_THROWS_AS(played.simulation->restore(cut), vole::Error);
    REQUIRE(played.simulation->snapshot().bytes == snapshot.bytes);
  }
}

TEST_CASE("two states are compared by thing, component and field") {
  Played played(allotment_folder() + "/recordings/harvest.run");
  played.start();
  played.play_to(*played.simulation, 300);
  const vole::TomlValue before = state_of(*played.simulation);
  CHECK(state_differences(before, state_of(*played.simulation)).empty());
  vole::Stage& stage = played.simulation->stage();
  const vole::Entity vole = stage.first("vole"), bulb = stage.first("bulb");
  stage.get<vole::Motion>(vole).velocity = {1.5f, -2};
  stage.get<vole::Sprite>(bulb).opacity = 0.5f;
  stage.entities().remove(stage.first("magpie"));
  stage.entities().sweep();
  std::string all;
  for (const vole::StateDifference& difference : state_differences(before, state_of(*played.simulation)))
    all += to_text(difference) + "\n";
  CAPTURE(all);
  CHECK(all.find("vole " + std::to_string(vole.index) + ", motion.velocity: [") != std::string::npos);
  CHECK(all.find(" and [1.5, -2.0]\n") != std::string::npos);
  CHECK(all.find("bulb " + std::to_string(bulb.index) + ", sprite.opacity: 1.0 and 0.5\n") !=
        std::string::npos);
  CHECK(all.find("magpie ") != std::string::npos);
  CHECK(all.find(" and nothing\n") != std::string::npos);
  CHECK(all.find("pose.at: ") == std::string::npos);
  CHECK(all.find(", motion: ") == std::string::npos);
}

TEST_CASE("a broken state file is refused at its place, and changes nothing") {
  Played played(allotment_folder() + "/recordings/harvest.run");
  played.start();
  played.play_to(*played.simulation, 300);
  const std::string good = played.simulation->to_toml();
  const auto with = [&](const std::string& what, const std::string& by) {
    std::string text = good;
    REQUIRE(text.find(what) != std::string::npos);
    text.replace(text.find(what), what.size(), by);
    TempFolder folder;
    const std::string message =
        error_of([&] { played.simulation->restore_toml(vole::parse_toml(text, "a.toml")); }, folder);
    CHECK(played.simulation->to_toml() == good);
    return message;
  };
  const auto has = [](const std::string& text, const std::string& part) {
    return text.find(part) != std::string::npos;
  };
  CHECK(has(with("format = 2", "format = 7"), "is not a state that this build reads"));
  CHECK(has(with("scene = \"garden\"", "scene = \"gardn\""), "no scene \"gardn\"; did you mean \"garden\"?"));
  CHECK(has(with("gathered = ", "gatherd = "), "unknown key \"gatherd\"; did you mean \"gathered\"?"));
  CHECK(has(with("velocity = [", "velocity = [1, "), "a list of 2 numbers wanted here"));
  CHECK(has(with("sheet = \"bulb\"", "sheet = \"blub\""), "no sheet \"blub\"; did you mean \"bulb\"?"));
  CHECK(has(with("\npose = [", "\npsoe = ["), "no component \"psoe\"; did you mean \"pose\"?"));
  CHECK(has(with("\npose = [0, ", "\npose = ["), "\"pose\" of this thing is not in [entities.order]"));
  CHECK(has(with("\npose = [", "\npose = [99999, "), "thing 99999 has no \"pose\""));
  CHECK(has(with("\n[scenes.world]", "\n[scenes.word]"), "unknown key \"word\"; did you mean \"world\"?"));
  CHECK(has(with("\nfree = [", "\nfree = [7, "), "\"free\" is not a list of the indices"));
  CHECK(has(with("\n[scenes.scene_state]", "\n[scenes.scene_stat]"),
            "unknown key \"scene_stat\"; did you mean \"scene_state\"?"));
  CHECK(has(with("chance = \"", "chance = \"x"), "hexadecimal digits in quotes wanted here"));
  CHECK(has(with("velocity = [", "velocity = [true, "), "a list of 2 numbers wanted here"));
  CHECK(has(with("velocity = [", "velocity = [true, 0], other = ["), "a number wanted here, not true"));
  CHECK(has(with("\nticks = ", "\nticks = -"), "is too small; the least is 0"));
  CHECK(has(with("index = 3\n", "index = 3000\n"), "this thing has no index with an odd generation"));
}

TEST_CASE("a state from before the first scene begins with that scene") {
  Played played(shipped_runs().front());
  played.start();
  const std::string text = played.simulation->to_toml();
  const std::unique_ptr<vole::Simulation> other = played.fresh();
  CHECK(other->change() == nullptr);
  other->restore_toml(vole::parse_toml(text, "a.toml"));
  REQUIRE(other->change() != nullptr);
  CHECK(other->change()->scene == played.first());
  CHECK(other->to_toml() == text);
  other->restore(played.simulation->snapshot());
  played.play_to(*other, 200);
  played.play_to(*played.simulation, 200);
  CHECK(other->checksum() == played.simulation->checksum());
}
