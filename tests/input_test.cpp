// From a key going down to the tick that sees it, and back from a recording.
#include <cmath>
#include <limits>

#include "support.hpp"
#include "vole/app/host.hpp"
#include "vole/app/ticker.hpp"
#include "vole/input/recording.hpp"

namespace {

vole::Control control(const char* name) {
  return *vole::find_control(name);
}

vole::Controls small_controls() {
  vole::Controls controls;
  controls.actions.push_back({"jump", {control("key Space"), control("pad south")}});
  controls.actions.push_back({"dig", {control("key KeyX")}});
  controls.axes.push_back(
      {"walk", {control("key ArrowLeft")}, {control("key ArrowRight")}, {control("pad stick left x")}});
  return controls;
}

}  // namespace

TEST_CASE("each press reaches exactly one tick, whatever the frame rate") {
  vole::Random chance(9);
  const vole::Controls controls = small_controls();
  for (int round = 0; round < 200; ++round) {
    const int frames_per_second = static_cast<int>(chance.below(496)) + 5;
    CAPTURE(round, frames_per_second);
    vole::InputGather gather(controls);
    vole::Ticker ticker(60, 1000);
    std::int64_t presses = 0, releases = 0, seen_presses = 0, seen_releases = 0;
    bool down = false;
    const auto tick = [&] {
      const vole::TickInput& input = gather.latch();
      seen_presses += input.action_state("jump").presses;
      seen_releases += input.action_state("jump").releases;
      REQUIRE(input.held("jump") == down);
      REQUIRE(input.action_state("dig") == vole::TickInput::ActionState{});
    };
    for (int frame = 0; frame < 2 * frames_per_second; ++frame) {
      for (std::uint32_t events = chance.below(4); events > 0; --events) {
        if (!chance.chance(0.7f)) continue;
        down = !down;
        ++(down ? presses : releases);
        gather.add({control("key Space"), down ? 1.0f : 0.0f});
      }
      // Frames jitter by half of their length.
      const double length = 1e9 / frames_per_second * static_cast<double>(chance.within(0.5f, 1.5f));
      for (int due = ticker.add(static_cast<std::int64_t>(length)); due > 0; --due) tick();
    }
    tick();
    REQUIRE(seen_presses == presses);
    REQUIRE(seen_releases == releases);
  }
}

TEST_CASE("two bindings of one action are one press") {
  const vole::Controls controls = small_controls();
  vole::InputGather gather(controls);
  gather.add({control("key Space"), 1});
  gather.add({control("pad south"), 1});
  gather.add({control("key Space"), 0});
  const vole::TickInput& input = gather.latch();
  CHECK(input.action_state("jump") == vole::TickInput::ActionState{true, 1, 0});
  gather.add({control("pad south"), 0});
  CHECK(gather.latch().released("jump"));
  CHECK_FALSE(gather.latch().released("jump"));
}

TEST_CASE("an axis comes from keys and sticks, and the shortest push still counts") {
  const vole::Controls controls = small_controls();
  vole::InputGather gather(controls);
  gather.add({control("pad stick left x"), 0.15f});
  CHECK(gather.latch().axis("walk") == 0);
  gather.add({control("pad stick left x"), -1});
  CHECK(gather.latch().axis("walk") == -1);
  gather.add({control("key ArrowRight"), 1});
  gather.add({control("pad stick left x"), 0});
  CHECK(gather.latch().axis("walk") == 1);
  gather.add({control("key ArrowLeft"), 1});
  CHECK(gather.latch().axis("walk") == 0);  // both at once
  gather.release_all();
  gather.add({control("key ArrowLeft"), 1});
  gather.add({control("key ArrowLeft"), 0});
  CHECK(gather.latch().axis("walk") == -1);
  CHECK(gather.latch().axis("walk") == 0);
  gather.add({control("pad stick left x"), std::numeric_limits<float>::quiet_NaN()});
  CHECK(gather.latch().axis("walk") == 0);
}

TEST_CASE("two pads are two pads: neither lets go of what the other holds") {
  const vole::Controls controls = small_controls();
  vole::InputGather gather(controls);
  gather.add({control("pad south"), 1, 1});
  gather.add({control("pad south"), 1, 2});
  CHECK(gather.latch().pressed("jump"));
  gather.add({control("pad south"), 0, 2});
  CHECK(gather.latch().held("jump"));
  gather.add({control("pad stick left x"), -1, 1});
  gather.add({control("pad stick left x"), 0.1f, 2});
  CHECK(gather.latch().axis("walk") == -1);
  gather.release(1);
  CHECK_FALSE(gather.latch().held("jump"));
  CHECK(gather.latch().axis("walk") == 0);
  gather.release(9);
}

TEST_CASE("after everything was let go, what is still down must be pressed again") {
  const vole::Controls controls = small_controls();
  vole::InputGather gather(controls);
  gather.add({control("key Space"), 1});
  gather.release_all();
  CHECK(gather.latch().action_state("jump") == vole::TickInput::ActionState{});
  gather.add({control("key Space"), 0});
  CHECK_FALSE(gather.latch().released("jump"));
  gather.add({control("key Space"), 1});
  CHECK(gather.latch().pressed("jump"));
  try {
    gather.latch().pressed("jmp");
    FAIL("nothing was thrown");
  } catch (const vole::Error& error) {
    CHECK(std::string(error.what()) == "controls.toml: error: no action \"jmp\"; did you mean \"jump\"?");
  }
}

TEST_CASE("every control has a name that is found again") {
  for (const std::string& name : vole::control_names()) {
    const auto found = vole::find_control(name);
    REQUIRE(found);
    REQUIRE(vole::name_of(*found) == name);
  }
}

TEST_CASE("what is wrong with controls is reported at its place") {
  TempFolder folder;
  folder.write(
      "controls.toml",
      "[actions]\njump = [\"key Spcae\", \"pad south\"]\n[axes.walk]\nmore = [\"ArrowRight\"]\nles = []\n");
  const std::string message = error_of([&] { vole::read_controls(folder.path("controls.toml")); }, folder);
  CHECK(message.find("controls.toml:2:9: error: no control \"key Spcae\"; did you mean \"key Space\"?") !=
        std::string::npos);
  CHECK(message.find("controls.toml:4:9: error: no control \"ArrowRight\"") != std::string::npos);
  CHECK(message.find("controls.toml:5:1: error: unknown key \"les\"; did you mean \"less\"?") !=
        std::string::npos);
}

TEST_CASE("ticks follow time without drift, however it is cut up") {
  vole::Random chance(2);
  for (const int rate : {60, 50, 144, 61}) {
    vole::Ticker ticker(rate, 1'000'000);
    std::int64_t time = 0, ticks = 0;
    for (int i = 0; i < 20000; ++i) {
      const auto part = static_cast<std::int64_t>(chance.below(40'000'000));
      time += part;
      ticks += ticker.add(part);
      REQUIRE(ticker.share_of_tick() >= 0);
      REQUIRE(ticker.share_of_tick() < 1);
    }
    CHECK(ticks == time * rate / 1'000'000'000);
  }
}

TEST_CASE("after a long pause only a few ticks are caught up") {
  vole::Ticker ticker(60, 6);
  CHECK(ticker.add(5'000'000'000) == 6);
  CHECK(ticker.add(0) == 0);
  CHECK(ticker.add(-100) == 0);
  CHECK(ticker.add(std::numeric_limits<std::int64_t>::max()) == 6);
}

TEST_CASE("without a window each step is one tick") {
  for (const int rate : {60, 50, 144, 7}) {
    vole::HeadlessHost host(rate);
    vole::Ticker ticker(rate);
    for (int step = 0; step < 100000; ++step) REQUIRE(ticker.add(host.elapsed()) == 1);
  }
}

TEST_CASE("the canvas sits in the window at a whole multiple, in the middle") {
  CHECK(vole::place_canvas({320, 180}, {1280, 800}) == vole::IRect{{0, 40}, {1280, 720}});
  CHECK(vole::place_canvas({320, 180}, {1279, 900}) == vole::IRect{{159, 180}, {960, 540}});
  CHECK(vole::place_canvas({320, 180}, {100, 100}).size == vole::IVec2{320, 180});
}

TEST_CASE("any input is recorded and given back tick for tick, whatever its names") {
  vole::Random chance(4);
  vole::Controls controls = small_controls();
  // An action and an axis of one name, and names that look like more than a word.
  controls.axes.push_back({"jump", {control("key ArrowDown")}, {control("key ArrowUp")}, {}});
  controls.actions.push_back({"big jump", {control("key KeyX")}});
  controls.axes.push_back({"say \"walk\" \\ 5", {control("key KeyX")}, {control("key Space")}, {}});
  controls.actions.push_back({"7", {control("key ArrowUp")}});
  for (int round = 0; round < 50; ++round) {
    vole::InputGather gather(controls);
    vole::InputWriter writer(controls);
    vole::Recording recording{"small", "1", "1", chance.next_wide(), 60, 200, "00000000000000aa", {}, {}};
    std::vector<vole::TickInput> given;
    for (int tick = 0; tick < 200; ++tick) {
      for (std::uint32_t events = chance.below(5); events > 0; --events) {
        const char* names[] = {"key Space",     "key KeyX",  "pad stick left x", "key ArrowLeft",
                               "key ArrowDown", "pad south", "key ArrowUp"};
        gather.add({control(names[chance.below(7)]), chance.within(-1.5f, 1.5f)});
      }
      // A button that rattles more often in a tick than anybody presses it.
      for (std::uint32_t rattles = chance.chance(0.01f) ? chance.below(700) : 0; rattles > 0; --rattles)
        gather.add({control("key Space"), static_cast<float>(rattles % 2)});
      if (chance.chance(0.02f)) gather.release_all();
      given.push_back(gather.latch());
      writer.add(tick, given.back(), recording.inputs);
    }
    TempFolder folder;
    vole::write_recording(folder.path("a.run"), recording);
    const vole::Recording back = vole::read_recording(folder.path("a.run"));
    CHECK(back.seed == recording.seed);
    vole::InputReader reader(back, controls);
    for (const vole::TickInput& input : given) REQUIRE(reader.next() == input);
  }
}

TEST_CASE("what is wrong with a recording is reported at its place") {
  TempFolder folder;
  const auto with_line = [&](const std::string& line) {
    folder.write("a.run",
                 "format = 1\ngame = \"small\"\nseed = 1\nticks_per_second = 60\nticks = 10\n"
                 "checksum = \"00000000000000aa\"\ninputs = [\n  \"3 jump +\",\n  \"" +
                     line + "\",\n]\n");
    const vole::Controls controls = small_controls();
    return error_of([&] { vole::InputReader(vole::read_recording(folder.path("a.run")), controls); }, folder);
  };
  CHECK(with_line("4 walk -100").empty());
  CHECK(with_line("4 wlak 100") == "a.run:9:3: error: no action or axis \"wlak\"; did you mean \"walk\"?");
  CHECK(with_line("2 jump -") == "a.run:9:3: error: tick 2 comes after tick 3");
  CHECK(with_line("4 jump down") ==
        "a.run:9:3: error: \"down\" is not a press or release; they are written '+', '-' and '.'");
  CHECK(with_line("4 walk 101") == "a.run:9:3: error: \"101\" is not a whole number from -100 to 100");
  CHECK(with_line("soon jump +").find("does not begin with a tick") != std::string::npos);
  CHECK(with_line("") != "");
  CHECK(with_line("4 \\\"jump +").find("has a quote that is not closed") != std::string::npos);
  const auto with_checkpoints = [&](const std::string& points) {
    folder.write("c.run",
                 "format = 1\ngame = \"small\"\nseed = 1\nticks_per_second = 60\nticks = 10\n"
                 "checksum = \"00000000000000aa\"\ninputs = []\ncheckpoints = [" +
                     points + "]\n");
    return error_of([&] { vole::read_recording(folder.path("c.run")); }, folder);
  };
  CHECK(with_checkpoints("\"3 00000000000000aa\", \"6 00000000000000ab\"").empty());
  // One that is broken is not passed over, since those after it would be too.
  CHECK(with_checkpoints("\"3 00aa\", \"6 00000000000000ab\"") ==
        "c.run:8:16: error: \"3 00aa\" is not a checkpoint; a checkpoint is like \"300 9f3c20aa17be4d55\"");
  CHECK(
      with_checkpoints("\"6 00000000000000aa\", \"6 00000000000000ab\"").find("comes after that of tick 6") !=
      std::string::npos);
  folder.write("d.run", "format = 2\nspeed = 1\n");
  CHECK(error_of([&] { vole::read_recording(folder.path("d.run")); }, folder) ==
        "d.run:1:10: error: is a recording in format 2; this build reads format 1");
  folder.write("b.run", "game = \"small\"\nticks = -4\n");
  CHECK(error_of([&] { vole::read_recording(folder.path("b.run")); }, folder)
            .find("b.run:2:9: error: -4 is too small") != std::string::npos);
}
