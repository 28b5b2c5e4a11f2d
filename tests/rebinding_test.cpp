// What a player binds anew: heard as a control, kept in a file, told of where it is bound twice; and the ready scene for it.
#include "vole/input/rebinding.hpp"

#include <cstdlib>
#include <filesystem>

#include "support.hpp"
#include "vole/app/player_settings.hpp"
#include "vole/app/session.hpp"
#include "vole/input/gather.hpp"
#include "vole/input/input_reader.hpp"
#include "vole/input/input_writer.hpp"
#include "vole/input/recording.hpp"
#include "vole/level/level.hpp"
#include "vole/scene/cues.hpp"
#include "vole/scene/pictures/drawing.hpp"
#include "vole/scene/ready/controls_scene.hpp"

namespace {

using Catch::Contains;
using vole::Rebinding;

// A host that shows, but has no window: what it keeps is kept.
class Shown : public vole::HeadlessHost {
 public:
  Shown() : HeadlessHost(60) {}
  bool shows() const override { return true; }
  void gather(vole::InputGather& gather) override {
    for (const auto& [name, down] : events)
      gather.add({*vole::find_control(name), down ? 1.0f : 0.0f, device_of(name)});
    events.clear();
  }
  static std::uint8_t device_of(const std::string& name) { return name.starts_with("pad") ? 1 : 0; }
  std::vector<std::pair<std::string, bool>> events;
};

class Patch : public vole::Scene {
 public:
  void tick(vole::Stage& stage) override {
    jumps += stage.input().pressed("jump") ? 1 : 0;
    walked = stage.input().axis("walk");
    if (stage.input().pressed("keys")) stage.leave_for("controls", vole::ControlsFor{"patch"});
  }
  static inline int jumps = 0;
  static inline float walked = 0;
};
template <class V>
void describe(V&, Patch&) {}

// A game in a folder, with a folder for what its player sets.
struct Played {
  TempFolder folder, home;
  Shown host;
  std::unique_ptr<vole::Session> session;

  Played() {
    setenv("XDG_DATA_HOME", home.path().c_str(), 1);
    folder.write("game.toml",
                 "title = \"Small\"\nid = \"small\"\ncanvas = [320, 180]\nfirst_scene = \"patch\"\n");
    folder.write("controls.toml",
                 "[actions]\njump = [\"key Space\", \"pad south\"]\nkeys = [\"key F1\"]\n"
                 "[axes.walk]\nless = [\"key ArrowLeft\"]\nmore = [\"key ArrowRight\"]\nstick = [\"pad stick "
                 "left x\"]\n");
    begin();
  }
  ~Played() { unsetenv("XDG_DATA_HOME"); }
  void begin(const vole::Options& options = {}) {
    session.reset();
    Patch::jumps = 0;
    vole::Game game("game.toml");
    game.scene<Patch>("patch").scene<vole::ControlsScene>("controls");
    vole::Options seeded = options;
    if (seeded.replay.empty()) seeded.seed = 1;
    session = std::make_unique<vole::Session>(std::move(game), vole::read_project(folder.path("game.toml")),
                                              seeded, host);
    session->step();
  }
  // Presses and lets go, each in a tick of its own.
  void press(const std::string& control) {
    for (const bool down : {true, false}) {
      host.events.push_back({control, down});
      session->step();
      session->step();
    }
  }
  std::string file() const { return home.path("small/settings.toml"); }
  // Whether the line in which the scene for keys tells what else a key does has anything in it.
  bool told_of_conflict() {
    const vole::Image& canvas = session->draw(1);
    for (int y = canvas.size().y - 32; y < canvas.size().y - 18; ++y)
      for (int x = 0; x < canvas.size().x; ++x)
        if (canvas.at(x, y) == vole::Colour{0xed, 0xa6, 0x3f, 0xff}) return true;
    return false;
  }
};

}  // namespace

TEST_CASE("while a control is asked for it is told by its name, once, and presses nothing") {
  vole::Controls controls;
  controls.actions.push_back({"jump", {*vole::find_control("key Space")}});
  controls.axes.push_back({.name = "walk", .sticks = {*vole::find_control("pad stick left x")}});
  vole::InputGather gather(controls);
  gather.add({*vole::find_control("key Space"), 1});
  gather.ask_for_control(true);
  CHECK_FALSE(gather.latch().held("jump"));
  // What is held already is no press, and neither is letting go.
  gather.add({*vole::find_control("key Space"), 0});
  CHECK(gather.latch().asked_control.empty());
  gather.add({*vole::find_control("key Space"), 1});
  gather.add({*vole::find_control("key KeyX"), 1});
  CHECK(gather.latch().asked_control == "key Space");
  const vole::TickInput& after = gather.latch();
  CHECK(after.asked_control.empty());
  CHECK_FALSE(after.held("jump"));
  // A stick by the side that it is pushed to.
  gather.add({*vole::find_control("pad stick left x"), -0.9f, 1});
  CHECK(gather.latch().asked_control == "pad stick left left");
  CHECK(gather.latch().axis("walk") == 0);
  gather.ask_for_control(false);
  // Still held: a press of its own only when it is pressed anew.
  CHECK_FALSE(gather.latch().held("jump"));
  gather.add({*vole::find_control("key Space"), 0});
  gather.add({*vole::find_control("key Space"), 1});
  CHECK(gather.latch().pressed("jump"));
}

TEST_CASE("what was asked for is recorded and given back") {
  vole::Controls controls;
  controls.actions.push_back({"jump", {*vole::find_control("key Space")}});
  vole::Recording recording;
  vole::InputWriter writer(controls);
  vole::TickInput input(controls);
  for (int tick = 0; tick < 6; ++tick) {
    input.asked_control = tick == 2 ? "key KeyX" : tick == 3 ? "mouse wheel up" : "";
    writer.add(tick, input, recording.inputs);
  }
  CHECK(recording.inputs[0].value == "2 *asked \"key KeyX\"; +1 *asked \"mouse wheel up\"");
  vole::InputReader reader(recording, controls);
  for (int tick = 0; tick < 6; ++tick)
    CHECK(reader.next().asked_control == (tick == 2 ? "key KeyX" : tick == 3 ? "mouse wheel up" : ""));
  recording.inputs = {{"2 *asked", {}}};
  CHECK_THROWS_WITH(vole::InputReader(recording, controls), Contains("does not say what was pressed"));
}

TEST_CASE(
    "a player binds a key anew in the ready scene, finds it so at the next start, and forgets it again") {
  Played played;
  played.press("key Space");
  CHECK(Patch::jumps == 1);
  played.press("key F1");
  REQUIRE(played.session->scene_name() == "controls");
  // The first is "jump": chosen, and then bound to X. The pad keeps its button.
  played.press("key Enter");
  played.press("key KeyX");
  const std::string kept = vole::read_text(played.file(), 10000);
  CAPTURE(kept);
  CHECK(kept.find("[\"key KeyX\", \"pad south\"]") != std::string::npos);
  // Two further down the left side of the walk: by the stick of a pad, bound to what "keys" has: told.
  played.press("pad stick left down");
  played.press("key ArrowDown");
  played.press("pad south");
  played.press("key F1");
  // Told where it is drawn, and no part of the state, which knows nothing of what players have set.
  CHECK(played.told_of_conflict());
  CHECK(played.session->simulation().to_toml().find("is keys too") == std::string::npos);
  played.press("key Escape");
  REQUIRE(played.session->scene_name() == "patch");
  Patch::jumps = 0;
  played.press("key Space");
  CHECK(Patch::jumps == 0);
  played.press("key KeyX");
  played.press("pad south");
  CHECK(Patch::jumps == 2);
  // Another start.
  played.begin();
  played.press("key KeyX");
  CHECK(Patch::jumps == 1);
  // A changed file of the game: what the player has set lies over it.
  played.folder.write("controls.toml",
                      "[actions]\njump = [\"key KeyJ\"]\nkeys = [\"key F1\"]\nring = [\"key KeyR\"]\n"
                      "[axes.walk]\nless = [\"key ArrowLeft\"]\nmore = [\"key ArrowRight\"]\n");
  played.session->refresh();
  Patch::jumps = 0;
  played.press("key KeyJ");
  CHECK(Patch::jumps == 0);
  played.press("key KeyX");
  CHECK(Patch::jumps == 1);
  // Back to what the game says.
  played.begin();
  played.press("key F1");
  played.press("key Backspace");
  played.press("key Escape");
  Patch::jumps = 0;
  played.press("key KeyX");
  CHECK(Patch::jumps == 0);
  played.press("key KeyJ");
  CHECK(Patch::jumps == 1);
}

TEST_CASE("a recorded change of keys is played again, and a replay touches no settings") {
  Played played;
  vole::Options options;
  options.record = played.folder.path("keys.run");
  played.begin(options);
  played.press("key F1");
  played.press("key Enter");
  played.press("key KeyX");
  played.press("key Escape");
  played.press("key KeyX");
  CHECK(Patch::jumps == 1);
  CHECK(played.session->finish() == 0);
  std::filesystem::remove(played.file());
  vole::Options again;
  again.replay = options.record;
  played.begin(again);
  while (played.session->step()) {
  }
  CHECK(played.session->finish() == 0);
  CHECK(Patch::jumps == 1);
  CHECK_FALSE(vole::file_exists(played.file()));
}

TEST_CASE("a recorded change of keys replays whatever the player has set, also after a conflict was told") {
  Played played;
  std::filesystem::create_directories(played.home.path("small"));
  played.home.write("small/settings.toml", "[[bindings]]\nname = \"keys\"\ncontrols = [\"key F2\"]\n");
  vole::Options options;
  options.record = played.folder.path("keys.run");
  played.begin(options);
  played.press("key F2");
  REQUIRE(played.session->scene_name() == "controls");
  played.press("key Enter");
  played.press("key F2");
  CHECK(played.told_of_conflict());
  played.press("key Escape");
  played.press("key F2");
  CHECK(played.session->finish() == 0);
  for (const bool with_settings : {true, false}) {
    if (!with_settings) std::filesystem::remove(played.file());
    vole::Options again;
    again.replay = options.record;
    played.begin(again);
    while (played.session->step()) {
    }
    CHECK(played.session->finish() == 0);
  }
}

TEST_CASE("keys that are held while another is bound, or files change, are held on") {
  Played played;
  played.host.events.push_back({"key ArrowRight", true});
  played.session->step();
  played.session->step();
  CHECK(Patch::walked == 1);
  played.session->simulation().stage().rebind({1, "jump", "", {"key KeyX"}});
  for (int i = 0; i < 3; ++i) played.session->step();
  CHECK(Patch::walked == 1);
  played.folder.write("kinds.toml", "[stone]\nbody = {}\n");
  played.session->refresh();
  for (int i = 0; i < 3; ++i) played.session->step();
  CHECK(Patch::walked == 1);
  played.press("key KeyX");
  CHECK(Patch::jumps == 1);
}

TEST_CASE("settings that are broken are reported, and the game goes on without them") {
  Played played;
  for (const char* text : {"[[bindings]]\nname = 3\n", "bindings = [",
                           "[[bindings]]\nplayer = 9\nname = \"jump\"\n", "nonsense = 1\n"}) {
    std::filesystem::create_directories(played.home.path("small"));
    played.home.write("small/settings.toml", text);
    played.begin();
    played.press("key Space");
    CAPTURE(text);
    CHECK(Patch::jumps == 1);
  }
  // What names nothing of the game is left out, and what is not a control too.
  played.home.write("small/settings.toml",
                    "[[bindings]]\nname = \"fly\"\ncontrols = [\"key KeyX\"]\n[[bindings]]\nname = "
                    "\"jump\"\ncontrols = [\"key Nowhere\", \"key KeyZ\"]\n");
  played.begin();
  played.press("key KeyZ");
  CHECK(Patch::jumps == 1);
}

TEST_CASE("what can be bound is listed as it is written, and put back the same") {
  const vole::Controls controls = vole::read_controls(source_folder() + "/examples/milkround/controls.toml");
  const std::vector<Rebinding> all = vole::bindings_of(controls);
  REQUIRE(all.size() == 2 * (4 + 4));
  CHECK(vole::shown_name(all[4]) == "walk left");
  CHECK(all[4].controls == std::vector<std::string>{"key ArrowLeft", "pad left", "touch swipe left"});
  // Every one put back leaves all as it is.
  CHECK(vole::bindings_of(vole::with_rebindings(controls, all)).size() == all.size());
  for (std::size_t i = 0; i < all.size(); ++i)
    CHECK(vole::bindings_of(vole::with_rebindings(controls, all))[i].controls == all[i].controls);
  // One changed changes that alone.
  for (std::size_t i = 0; i < all.size(); ++i) {
    Rebinding one = all[i];
    one.controls = {"key KeyX", "key ControlLeft + key KeyS"};
    const std::vector<Rebinding> now = vole::bindings_of(vole::with_rebindings(controls, std::vector{one}));
    for (std::size_t k = 0; k < all.size(); ++k)
      CHECK(now[k].controls == (k == i ? one.controls : all[k].controls));
  }
  CHECK(vole::also_pressed(controls, {1, "walk", "left", {}}, "key Space") ==
        std::vector<std::string>{"ring"});
  CHECK(vole::also_pressed(controls, {2, "walk", "left", {}}, "key Space") ==
        std::vector<std::string>{"ring of player 1"});
  CHECK(vole::also_pressed(controls, {2, "walk", "left", {}}, "pad south") ==
        std::vector<std::string>{"ring"});
  CHECK(vole::also_pressed(controls, {2, "walk", "left", {}}, "key KeyN").empty());
}
