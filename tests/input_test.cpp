// From a key going down to the tick that sees it, and back from a recording.
#include "vole/input/input.hpp"

#include <cmath>
#include <filesystem>
#include <limits>

#include "support.hpp"
#include "vole/app/host.hpp"
#include "vole/app/tick_clock.hpp"
#include "vole/input/gather.hpp"
#include "vole/input/input_reader.hpp"
#include "vole/input/input_writer.hpp"
#include "vole/input/recording.hpp"

namespace {

vole::Control control(const char* name) {
  return *vole::find_control(name);
}

vole::Controls small_controls() {
  vole::Controls controls;
  controls.actions.push_back({"jump", {control("key Space"), control("pad south")}});
  controls.actions.push_back({"dig", {control("key KeyX")}});
  controls.axes.push_back({.name = "walk",
                           .less = {control("key ArrowLeft")},
                           .more = {control("key ArrowRight")},
                           .sticks = {control("pad stick left x")}});
  return controls;
}

vole::Recording small_recording() {
  vole::Recording recording;
  recording.game = "small";
  recording.game_version = recording.vole_version = "1";
  recording.ticks_per_second = 60;
  recording.checksum.value = "00000000000000aa";
  return recording;
}

}  // namespace

TEST_CASE("each press reaches exactly one tick, whatever the frame rate") {
  vole::Random chance(9);
  const vole::Controls controls = small_controls();
  for (int round = 0; round < 200; ++round) {
    const int frames_per_second = static_cast<int>(chance.below(496)) + 5;
    CAPTURE(round, frames_per_second);
    vole::InputGather gather(controls);
    vole::TickClock clock(60, 1000);
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
      for (int due = clock.add(static_cast<std::int64_t>(length)); due > 0; --due) tick();
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

TEST_CASE("an axis that is let go stops in the tick that comes next, whatever else was pressed in between") {
  const vole::Controls controls = small_controls();
  vole::InputGather gather(controls);
  gather.add({control("key ArrowLeft"), 1});
  CHECK(gather.latch().axis("walk") == -1);
  gather.add({control("key Space"), 1});
  gather.add({control("key ArrowLeft"), 0});
  gather.add({control("key Space"), 0});
  CHECK(gather.latch().axis("walk") == 0);
  // Two pushes, each shorter than a tick.
  for (int i = 0; i < 2; ++i) {
    gather.add({control("key ArrowRight"), 1});
    gather.add({control("key ArrowRight"), 0});
    CHECK(gather.latch().axis("walk") == 1);
  }
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

TEST_CASE("a chord is one press, and what is part of it is none") {
  vole::Controls controls;
  const auto chord = [](const char* one, const char* other) {
    return vole::Chord(std::vector<vole::Control>{control(one), control(other)});
  };
  controls.actions.push_back({"save", {chord("key ControlLeft", "key KeyS")}});
  controls.actions.push_back({"down", {control("key KeyS")}});
  controls.actions.push_back({"all", {chord("key ControlLeft", "key KeyA")}});
  vole::InputGather gather(controls);
  // Whichever comes first.
  gather.add({control("key ControlLeft"), 1});
  CHECK(gather.latch() == vole::TickInput(controls));
  gather.add({control("key KeyS"), 1});
  CHECK(gather.latch().pressed("save"));
  CHECK_FALSE(gather.latch().held("down"));
  CHECK(gather.latch().held("save"));
  CHECK_FALSE(gather.latch().held("all"));
  gather.add({control("key ControlLeft"), 0});
  const vole::TickInput& after = gather.latch();
  CHECK(after.released("save"));
  CHECK(after.held("down"));  // what is still held is what it is alone
}

TEST_CASE(
    "an axis of two dimensions has a round dead middle, is never longer than one, and bends as it is told") {
  vole::Random chance(31);
  vole::Controls controls;
  vole::Axis axis{.name = "steer", .sticks = {control("pad stick left x")}, .is_flat = true};
  axis.less = {control("key ArrowLeft")};
  axis.more = {control("key ArrowRight")};
  axis.up = {control("key ArrowUp")};
  axis.down = {control("key ArrowDown")};
  axis.dead = 0.25f;
  controls.axes.push_back(axis);
  axis.name = "finely";
  axis.curve = 2;
  controls.axes.push_back(axis);
  vole::InputGather gather(controls);
  for (int i = 0; i < 5000; ++i) {
    const float x = chance.within(-1, 1), y = chance.within(-1, 1);
    gather.add({control("pad stick left x"), x, 1});
    gather.add({control("pad stick left y"), y, 1});
    gather.latch();  // may tell of where the stick was on its way
    const vole::TickInput& input = gather.latch();
    const vole::Vec2 pushed = input.direction("steer"), fine = input.direction("finely");
    const double length = std::hypot(static_cast<double>(x), static_cast<double>(y));
    const double wanted = std::clamp((length - 0.25) / 0.75, 0.0, 1.0);
    const auto size = [](vole::Vec2 v) {
      return std::hypot(static_cast<double>(v.x), static_cast<double>(v.y));
    };
    CAPTURE(x, y, pushed.x, pushed.y);
    REQUIRE(size(pushed) <= 1.0001);
    REQUIRE(size(pushed) == Approx(wanted).margin(0.011));
    REQUIRE(size(fine) == Approx(wanted * wanted).margin(0.011));
    if (wanted > 0.1) {
      REQUIRE(static_cast<double>(pushed.x) / size(pushed) == Approx(x / length).margin(0.08));
      REQUIRE(static_cast<double>(pushed.y) / size(pushed) == Approx(y / length).margin(0.08));
    }
  }
  gather.release(1);
  gather.add({control("key ArrowLeft"), 1});
  gather.add({control("key ArrowUp"), 1});
  const vole::Vec2 slant = gather.latch().direction("steer");
  CHECK(slant.x == Approx(-std::sqrt(0.5)).margin(0.001));
  CHECK(slant.x == slant.y);
  gather.add({control("key ArrowRight"), 1});
  CHECK(gather.latch().direction("steer") == vole::Vec2{0, -1});
}

TEST_CASE("a stick presses the side that it is pushed to") {
  vole::Controls controls;
  controls.actions.push_back({"up", {control("pad stick left up")}});
  controls.actions.push_back({"down", {control("pad stick left down")}});
  vole::InputGather gather(controls);
  gather.add({control("pad stick left y"), -0.8f, 1});
  CHECK(gather.latch().held("up"));
  gather.add({control("pad stick left y"), 0.8f, 1});
  const vole::TickInput& input = gather.latch();
  CHECK(input.released("up"));
  CHECK(input.pressed("down"));
}

TEST_CASE(
    "a wheel presses once for each notch, and only a game that asks for the pointer hears where it is") {
  for (const bool pointer : {true, false}) {
    vole::Controls controls;
    controls.pointer = pointer;
    controls.actions.push_back({"next", {control("mouse wheel down")}});
    vole::InputGather gather(controls);
    gather.turn_wheel({0, 3});
    gather.turn_wheel({0, -1});
    gather.point_at(vole::Vec2{10.9f, -0.5f});
    const vole::TickInput& input = gather.latch();
    CHECK(input.action_state("next") == vole::TickInput::ActionState{false, 3, 3});
    if (!pointer) {
      CHECK_THROWS_WITH(input.pointer(), Catch::Contains("add at its top: pointer = true"));
      CHECK(input.seen_pointer == vole::Pointer{});
      continue;
    }
    CHECK(input.pointer() == vole::Pointer{{10, -1}, true, {0, 2}});
    gather.point_at(std::nullopt);
    CHECK(gather.latch().pointer() == vole::Pointer{{10, -1}, false, {0, 0}});
  }
}

TEST_CASE("fingers tap, hold, swipe, and press the areas that they are in") {
  vole::Controls controls;
  controls.areas.push_back({"brake", {{0, 0}, {40, 40}}});
  for (const char* gesture : {"tap", "hold", "swipe left", "swipe right", "swipe up", "swipe down"})
    controls.actions.push_back({gesture, {control((std::string("touch ") + gesture).c_str())}});
  controls.actions.push_back({"brake", {vole::area_control(0)}});
  // What a finger makes that goes from one point to another in some seconds.
  const auto made = [&](vole::Vec2 from, vole::Vec2 to, double seconds) {
    vole::InputGather gather(controls);
    std::string told;
    gather.add(vole::FingerEvent{7, vole::FingerPhase::down, from});
    const bool brakes = gather.latch().held("brake");
    CHECK(brakes == (from.x < 40 && from.y < 40));
    for (int i = 1; i <= 10; ++i) {
      gather.add(
          vole::FingerEvent{7, vole::FingerPhase::moves, from + (to - from) * (static_cast<float>(i) / 10)});
      gather.pass(seconds / 10);
    }
    gather.add(vole::FingerEvent{7, vole::FingerPhase::up, to});
    const vole::TickInput& input = gather.latch();
    for (const vole::Action& action : controls.actions)
      if (action.name != "brake" && input.pressed(action.name)) told += action.name;
    CHECK_FALSE(input.held("brake"));
    return told;
  };
  CHECK(made({100, 50}, {103, 52}, 0.2) == "tap");
  CHECK(made({10, 10}, {10, 10}, 0.2) == "tap");
  CHECK(made({100, 50}, {103, 52}, 0.45) == "");
  CHECK(made({100, 50}, {103, 52}, 0.8) == "hold");
  CHECK(made({100, 50}, {60, 60}, 0.2) == "swipe left");
  CHECK(made({100, 50}, {140, 60}, 0.2) == "swipe right");
  CHECK(made({100, 50}, {110, 10}, 0.2) == "swipe up");
  CHECK(made({100, 50}, {90, 90}, 0.2) == "swipe down");
  CHECK(made({100, 50}, {140, 60}, 0.6) == "");
  CHECK(made({100, 50}, {112, 50}, 0.2) == "");
}

TEST_CASE("each player has its own keys and its own pad, and the next pad when that is gone") {
  TempFolder folder;
  folder.write(
      "controls.toml",
      "[actions]\ngo = [\"key Space\", \"pad south\"]\n[axes.walk]\nless = [\"key ArrowLeft\", \"pad "
      "left\"]\n"
      "more = [\"key ArrowRight\"]\n[players.2.actions]\ngo = [\"key Enter\"]\n[players.2.axes.walk]\nless = "
      "[\"key KeyA\"]\n");
  const vole::Controls controls = vole::read_controls(folder.path("controls.toml"));
  REQUIRE(controls.players() == 2);
  vole::InputGather gather(controls);
  gather.add({control("key Enter"), 1});
  gather.add({control("key ArrowLeft"), 1});
  const vole::TickInput& keys = gather.latch();
  CHECK_FALSE(keys.pressed("go"));
  CHECK(keys.pressed("go", 2));
  CHECK(keys.axis("walk") == -1);
  CHECK(keys.axis("walk", 2) == 0);
  CHECK_THROWS_WITH(keys.pressed("go", 3), Catch::Contains("no player 3: there are 2"));
  gather.release_all();
  // In the order in which they are used, whatever their numbers are.
  gather.add({control("pad south"), 1, 4});
  gather.add({control("pad left"), 1, 2});
  const vole::TickInput& pads = gather.latch();
  CHECK(pads.pressed("go"));
  CHECK_FALSE(pads.pressed("go", 2));
  CHECK(pads.axis("walk", 2) == -1);
  CHECK(pads.axis("walk") == 0);
  CHECK(pads.players[0].pads == 1);
  // A third one is the first player's too.
  gather.add({control("pad left"), 1, 1});
  CHECK(gather.latch().axis("walk") == -1);
  gather.release(1);
  gather.release(2);
  CHECK(gather.latch().players[1].pads == 0);
  gather.add({control("pad south"), 1, 3});
  CHECK(gather.latch().pressed("go", 2));
}

TEST_CASE("an input remembers how long, how often and what was taken, against a plain count") {
  vole::Random chance(33);
  const auto controls = std::make_shared<const vole::Controls>(small_controls());
  vole::InputGather gather(controls);
  vole::Input input;
  input.use(controls, 50);
  std::vector<int> presses;  // the ticks of them
  int held_since = -1, taken = -1;
  bool down = false;
  for (int tick = 0; tick < 5000; ++tick) {
    if (chance.chance(0.2f)) {
      down = !down;
      gather.add({control("key Space"), down ? 1.0f : 0.0f});
      if (down) presses.push_back(tick);
      held_since = down ? tick : -1;
    }
    input.take(gather.latch());
    CAPTURE(tick);
    REQUIRE(input.held("jump") == down);
    REQUIRE(input.held_for("jump") == Approx(down ? (tick - held_since) / 50.0 : 0));
    const std::size_t count = presses.size();
    const bool now = count > 0 && presses.back() == tick;
    REQUIRE(input.pressed("jump") == now);
    REQUIRE(input.pressed_twice("jump", 0.2f) == (now && count > 1 && tick - presses[count - 2] <= 10));
    const bool lately = count > 0 && tick - presses.back() <= 5 && taken != presses.back();
    REQUIRE(input.pressed_lately("jump", 0.1f) == lately);
    if (!chance.chance(0.3f)) continue;
    REQUIRE(input.take_press("jump", 0.1f) == lately);
    REQUIRE_FALSE(input.pressed("jump") != (now && !lately));
    if (lately) taken = presses.back();
    REQUIRE_FALSE(input.take_press("jump", 0.1f));
  }
}

TEST_CASE("what was forgotten while it was held is let go until it is pressed again") {
  const auto controls = std::make_shared<const vole::Controls>(small_controls());
  vole::InputGather gather(controls);
  vole::Input input;
  input.use(controls, 60);
  const auto next = [&] {
    input.take(gather.latch());
    return input.held("jump");
  };
  gather.add({control("key Space"), 1});
  CHECK(next());
  input.forget();
  CHECK_FALSE(next());
  CHECK_FALSE(input.pressed("jump"));
  gather.add({control("key Space"), 0});
  CHECK_FALSE(next());
  CHECK_FALSE(input.released("jump"));
  gather.add({control("key Space"), 1});
  CHECK(next());
  CHECK(input.pressed("jump"));
}

TEST_CASE("a smoothed axis follows evenly, and a pad that is gone is told once") {
  vole::Controls written = small_controls();
  written.axes[0].smooth = 0.5f;
  const auto controls = std::make_shared<const vole::Controls>(written);
  vole::InputGather gather(controls);
  vole::Input input;
  input.use(controls, 60);
  gather.add({control("pad stick left x"), 1, 1});
  for (int tick = 1; tick <= 40; ++tick) {
    input.take(gather.latch());
    CHECK(input.axis("walk") == 1);
    CHECK(input.smooth("walk").x == Approx(std::min(tick / 30.0, 1.0)));
    CHECK_FALSE(input.lost_pad());
  }
  gather.release(1);
  input.take(gather.latch());
  CHECK(input.lost_pad());
  CHECK(input.smooth("walk").x == Approx(1 - 1 / 30.0));
  input.take(gather.latch());
  CHECK_FALSE(input.lost_pad());
}

TEST_CASE("numbers that are none, thousands of events and fingers do no harm") {
  vole::Controls controls = small_controls();
  controls.pointer = true;
  controls.areas.push_back({"all", {{0, 0}, {320, 180}}});
  vole::InputGather gather(controls);
  const float none = std::numeric_limits<float>::quiet_NaN(),
              endless = std::numeric_limits<float>::infinity();
  for (int i = 0; i < cases(10000, 1000); ++i) {
    gather.add({control("key Space"), static_cast<float>(i % 2)});
    gather.add({control("pad stick left x"), i % 3 == 0 ? none : endless, static_cast<std::uint8_t>(i)});
    gather.add(vole::FingerEvent{i, vole::FingerPhase::down, {none, 3}});
    gather.add(vole::FingerEvent{i, vole::FingerPhase::down, {1e30f, static_cast<float>(i)}});
    gather.add(vole::FingerEvent{i / 2, vole::FingerPhase::up, {endless, 3}});
    gather.turn_wheel({std::numeric_limits<int>::max() / 2, -9});
    gather.point_at(vole::Vec2{none, endless});
    gather.pass(i % 5 == 0 ? static_cast<double>(none) : -1.0);
  }
  const vole::TickInput& input = gather.latch();
  CHECK(input.action_state("jump").presses == 255);
  CHECK(input.axis("walk") == 0);
  CHECK(input.pointer().wheel == vole::IVec2{100, -100});
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
  const auto wrong = [&](const std::string& text) {
    folder.write("controls.toml", text);
    return error_of([&] { vole::read_controls(folder.path("controls.toml")); }, folder);
  };
  CHECK(wrong("[actions]\na = [\"key ShiftLeft + key KyeE\"]\n") ==
        "controls.toml:2:6: error: no control \"key KyeE\"; did you mean \"key KeyE\"?");
  CHECK(wrong("[touch.brake]\narea = [0, 0, 9, 9]\n[actions]\na = [\"touch brkae\"]\n") ==
        "controls.toml:4:6: error: no control \"touch brkae\"; did you mean \"touch brake\"?");
  CHECK_THAT(wrong("[actions]\nb = [\"key KeyB + key KeyB\"]\n"),
             Catch::Contains("controls.toml:2:6: error: \"key KeyB\" is in it twice"));
  std::string many;
  for (int i = 0; i < 101; ++i) many += "\"key KeyB\", ";
  CHECK_THAT(wrong("[actions]\nb = [" + many + "]\n"), Catch::Contains("more than 100 controls for one thing"));
  CHECK(wrong("[touch.tap]\narea = [0, 0, 9, 9]\n") ==
        "controls.toml:1:8: error: \"touch tap\" is a gesture already; give the area another name");
  CHECK(wrong("[touch.a]\narea = [0, 0, 0, 9]\n") == "controls.toml:1:8: error: the area \"a\" has no size");
  CHECK(wrong("[axes.a]\nless = [\"key KeyA\"]\nup = [\"key KeyB\"]\n")
            .find("controls.toml:1:7: error: axis \"a\" has one dimension (less, more) and two") == 0);
  CHECK(wrong("[actions]\njump = []\n[players.2.actions]\njmp = []\n") ==
        "controls.toml:4:1: error: no action \"jmp\"; did you mean \"jump\"?");
  CHECK(
      wrong("[players.3.actions]\n").find("\"3\" is not the next player; players are counted: [players.2]") !=
      std::string::npos);
  CHECK(wrong("[axes.a]\nstick = [\"pad stick left\"]\n").empty());
}

TEST_CASE("ticks follow time without drift, however it is cut up") {
  vole::Random chance(2);
  for (const int rate : {60, 50, 144, 61}) {
    vole::TickClock clock(rate, 1'000'000);
    std::int64_t time = 0, ticks = 0;
    for (int i = 0; i < 20000; ++i) {
      const auto part = static_cast<std::int64_t>(chance.below(40'000'000));
      time += part;
      ticks += clock.add(part);
      REQUIRE(clock.share_of_tick() >= 0);
      REQUIRE(clock.share_of_tick() < 1);
    }
    CHECK(ticks == time * rate / 1'000'000'000);
  }
}

TEST_CASE("after a long pause only a few ticks are caught up") {
  vole::TickClock clock(60, 6);
  CHECK(clock.add(5'000'000'000) == 6);
  CHECK(clock.add(0) == 0);
  CHECK(clock.add(-100) == 0);
  CHECK(clock.add(std::numeric_limits<std::int64_t>::max()) == 6);
}

TEST_CASE("without a window each step is one tick") {
  for (const int rate : {60, 50, 144, 7}) {
    vole::HeadlessHost host(rate);
    vole::TickClock clock(rate);
    for (int step = 0; step < 100000; ++step) REQUIRE(clock.add(host.elapsed()) == 1);
  }
}

TEST_CASE("the canvas sits in the window at a whole multiple, in the middle") {
  CHECK(vole::place_canvas({320, 180}, {1280, 800}) == vole::IRect{{0, 40}, {1280, 720}});
  CHECK(vole::place_canvas({320, 180}, {1279, 900}) == vole::IRect{{159, 180}, {960, 540}});
  CHECK(vole::place_canvas({320, 180}, {100, 100}).size == vole::IVec2{320, 180});
  // As large as it fits, and over all of the window.
  vole::Random chance(35);
  for (int i = 0; i < 1000; ++i) {
    const int w = 1 + below(chance, 400), h = 1 + below(chance, 400);
    const int width = 1 + below(chance, 2000), height = 1 + below(chance, 2000);
    for (const vole::CanvasScaling scaling : {vole::CanvasScaling::fit, vole::CanvasScaling::fill}) {
      const vole::IRect placed = vole::place_canvas({w, h}, {width, height}, scaling);
      CAPTURE(w, h, width, height, placed.size.x, placed.size.y);
      if (scaling == vole::CanvasScaling::fit)
        CHECK((placed.size.x <= width && placed.size.y <= height));
      else
        CHECK((placed.size.x >= width && placed.size.y >= height));
      CHECK((placed.size.x == width || placed.size.y == height));
      // Of its own form, to a pixel.
      CHECK(std::abs(static_cast<double>(placed.size.x) * h - static_cast<double>(placed.size.y) * w) <=
            std::max(w, h));
      CHECK(std::abs(placed.at.x * 2 + placed.size.x - width) <= 1);
    }
  }
  // And a point of the window is one of the canvas.
  CHECK(vole::canvas_point({0, 40}, {320, 180}, {1280, 800}) == vole::Vec2{0, 0});
  CHECK(vole::canvas_point({1280, 760}, {320, 180}, {1280, 800}) == vole::Vec2{320, 180});
  CHECK(vole::canvas_point({640, 20}, {320, 180}, {1280, 800}) == vole::Vec2{160, -5});
}

TEST_CASE("any input is recorded and given back tick for tick, whatever its names") {
  vole::Random chance(4);
  vole::Controls controls = small_controls();
  // An action and an axis of one name, and names that look like more than a word.
  controls.axes.push_back(
      {.name = "jump", .less = {control("key ArrowDown")}, .more = {control("key ArrowUp")}});
  controls.actions.push_back({"big jump", {control("key KeyX")}});
  controls.axes.push_back(
      {.name = "say \"walk\" \\ 5", .less = {control("key KeyX")}, .more = {control("key Space")}});
  controls.actions.push_back({"7", {control("key ArrowUp")}});
  controls.actions.push_back({"*pads", {control("key KeyP")}});
  controls.actions.push_back({"at@2", {control("key KeyP")}});
  controls.actions.push_back({"dig; +1, no", {control("key KeyX")}});
  controls.axes.push_back({.name = "steer", .sticks = {control("pad stick left x")}, .is_flat = true});
  controls.others.push_back({controls.actions, controls.axes});
  controls.pointer = true;
  for (int round = 0; round < 50; ++round) {
    vole::InputGather gather(controls);
    vole::InputWriter writer(controls);
    vole::Recording recording = small_recording();
    recording.seed = static_cast<std::int64_t>(chance.next_wide());
    recording.ticks = 200;
    std::vector<vole::TickInput> given;
    for (int tick = 0; tick < 200; ++tick) {
      for (std::uint32_t events = chance.below(5); events > 0; --events) {
        const char* names[] = {"key Space",     "key KeyX",         "pad stick left x",
                               "key ArrowLeft", "key ArrowDown",    "pad south",
                               "key ArrowUp",   "pad stick left y", "key KeyP"};
        const std::uint32_t which = chance.below(9);
        const auto device = static_cast<std::uint8_t>(chance.below(3));
        gather.add({control(names[which]), chance.within(-1.5f, 1.5f), device});
      }
      if (chance.chance(0.05f)) gather.release(static_cast<std::uint8_t>(1 + chance.below(2)));
      if (chance.chance(0.2f)) gather.turn_wheel({below(chance, 5) - 2, 1});
      if (chance.chance(0.3f)) gather.point_at(vole::Vec2{chance.within(-9, 99), 5});
      if (chance.chance(0.1f)) gather.point_at(std::nullopt);
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
  CHECK(with_line("4 jump + dig - walk 3").empty());
  CHECK(with_line("4 jump +; +3 jump -;+1 dig +").empty());
  CHECK(with_line("4 jump +; +3 jmp -") ==
        "a.run:9:14: error: no action or axis \"jmp\"; did you mean \"jump\"?");
  CHECK(with_line("4 jump +; +3 jump -; +1 dgi +") ==
        "a.run:9:25: error: no action or axis \"dgi\"; did you mean \"dig\"?");
  CHECK(with_line("4 jump +; +-3 jump -").find("\"+-3 jump -\" does not begin with a tick") !=
        std::string::npos);
  CHECK(with_line("4 jump +; 2 jump -").find("tick 2 comes after tick 4") != std::string::npos);
  CHECK(with_line("4 *pads 1 *pointer 3 -4 *pointer out *wheel 0 1").empty());
  CHECK(with_line("4 *pins 1") ==
        "a.run:9:3: error: \"*pins\" is nothing that a recording tells; did you mean \"*pads\"?");
  CHECK(with_line("4 jump@2 +") == "a.run:9:3: error: no player \"2\"; the controls are for 1");
  CHECK(with_line("4 *pointer 3") == "a.run:9:3: error: \"\" is not a whole number from -32767 to 32767");
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

TEST_CASE(
    "other controls let nothing go: what is held stays, pads stay with their players, and none is lost") {
  vole::Controls written = small_controls();
  written.others.push_back(
      {{{"jump", {control("key Enter"), control("pad south")}}, {"dig", {}}}, written.axes});
  const auto before = std::make_shared<const vole::Controls>(written);
  vole::InputGather gather(before);
  vole::Input input;
  input.use(before, 60);
  const auto next = [&]() -> const vole::Input& {
    input.take(gather.latch());
    return input;
  };
  gather.add({control("key Space"), 1});
  gather.add({control("pad stick left x"), 1, 4});  // of the first player
  gather.add({control("pad south"), 1, 2});         // of the second
  CHECK(next().held("jump"));
  // An action more, in front; what "dig" is bound to is held; a bound key goes from one action to another.
  vole::Controls changed = written;
  changed.actions.insert(changed.actions.begin(), {"ring", {control("key KeyR")}});
  changed.actions[2].bindings = {control("key Space")};
  changed.others[0].actions.insert(changed.others[0].actions.begin(), {"ring", {}});
  const auto now = std::make_shared<const vole::Controls>(changed);
  gather.use(now);
  next();
  CHECK(input.held("jump"));
  CHECK_FALSE(input.pressed("jump"));
  CHECK(input.pressed("dig"));
  CHECK(input.axis("walk") == 1);
  CHECK(input.held("jump", 2));
  for (const int player : {1, 2}) CHECK_FALSE(input.lost_pad(player));
  gather.add({control("key Space"), 0});
  next();
  CHECK(input.released("jump"));
  CHECK(input.released("dig"));
  gather.add({control("pad south"), 0, 2});
  CHECK(next().released("jump", 2));
  // Bound to nothing: let go. And to what is held: pressed.
  gather.add({control("key Space"), 1});
  next();
  changed.actions[1].bindings.clear();
  changed.actions[0].bindings = {control("key Space")};
  gather.use(std::make_shared<const vole::Controls>(changed));
  next();
  CHECK(input.released("jump"));
  CHECK(input.pressed("ring"));
  // Fewer players: the pad of the one that is gone is the first one's when it is used anew.
  changed.others.clear();
  gather.use(std::make_shared<const vole::Controls>(changed));
  next();
  CHECK(input.held("ring"));
  CHECK(input.axis("walk") == 1);
}

TEST_CASE("areas of the screen that a finger rests on go on with other controls") {
  vole::Controls controls = small_controls();
  controls.areas.push_back({"left", {{0, 0}, {100, 100}}});
  controls.actions[0].bindings = {*vole::find_control("touch left", controls.areas)};
  vole::InputGather gather(controls);
  gather.add(vole::FingerEvent{1, vole::FingerPhase::down, {50, 50}});
  CHECK(gather.latch().held("jump"));
  controls.areas.insert(controls.areas.begin(), {"right", {{200, 0}, {100, 100}}});
  controls.actions[0].bindings = {*vole::find_control("touch left", controls.areas)};
  controls.actions[1].bindings = {*vole::find_control("touch right", controls.areas)};
  gather.use(std::make_shared<const vole::Controls>(controls));
  const vole::TickInput& input = gather.latch();
  CHECK(input.held("jump"));
  CHECK_FALSE(input.held("dig"));
}

TEST_CASE(
    "a pad that is pulled out while a control is asked for presses nothing, and what was asked ends with "
    "it") {
  vole::InputGather gather(small_controls());
  gather.add({control("key Space"), 1});
  gather.add({control("pad south"), 1, 1});
  gather.latch();
  gather.ask_for_control(true);
  gather.add({control("key KeyX"), 1});
  gather.release(1);
  const vole::TickInput& asked = gather.latch();
  CHECK_FALSE(asked.held("jump"));
  CHECK_FALSE(asked.pressed("dig"));
  CHECK(asked.asked_control == "key KeyX");
  gather.add({control("key ArrowLeft"), 1});
  gather.ask_for_control(false);
  CHECK(gather.latch().asked_control.empty());
}

TEST_CASE("hours of a stick and the pointer fit into a recording that is read back, and a full one says so") {
  vole::Controls controls = small_controls();
  controls.axes.push_back({.name = "steer", .sticks = {control("pad stick left x")}, .is_flat = true});
  controls.pointer = true;
  vole::Random chance(12);
  vole::InputWriter writer(controls);
  vole::Recording recording = small_recording();
  std::vector<vole::TickInput> given;
  vole::TickInput input(controls);
  const int minutes = 20, ticks = minutes * 60 * 60;
  for (int tick = 0; tick < ticks; ++tick) {
    input.players[0].axes[1] = {static_cast<std::int8_t>(below(chance, 201) - 100),
                                static_cast<std::int8_t>(below(chance, 201) - 100)};
    input.seen_pointer = {{below(chance, 320), below(chance, 180)}, true, {0, 0}};
    if (tick % 97 == 0) input.players[0].actions[0] = {tick % 2 == 0, 1, 0};
    writer.add(tick, input, recording.inputs);
    given.push_back(input);
    input.players[0].actions[0].presses = 0;
  }
  TempFolder folder;
  vole::write_recording(folder.path("a.run"), recording);
  const auto bytes = std::filesystem::file_size(folder.path("a.run"));
  // What the writer counts is what it comes to, so that it can stop in time.
  CHECK(writer.bytes() >= bytes - 1000);
  CHECK(writer.bytes() <= bytes + 1000);
  // Of such hours ten fit.
  CHECK(bytes * (600 / minutes) < vole::Recording::most_bytes);
  CHECK(recording.inputs.size() * (600 / minutes) < vole::Recording::most_values);
  const vole::Recording back = vole::read_recording(folder.path("a.run"));
  vole::InputReader reader(back, controls);
  for (const vole::TickInput& each : given) REQUIRE(reader.next() == each);
}

TEST_CASE("after a comma a line has the values of what moved in the tick before, and nothing else") {
  const vole::Controls controls = small_controls();
  const auto walked = [&](const std::string& line) {
    vole::Recording recording;
    recording.inputs = {{line, {}}};
    vole::InputReader reader(recording, controls);
    std::string all;
    for (int tick = 0; tick < 6; ++tick)
      all += std::to_string(std::lround(reader.next().axis("walk") * 100)) + " ";
    return all;
  };
  CHECK(walked("1 walk 20, 40, 75; +2 walk 0") == "0 20 40 75 75 0 ");
  CHECK_THROWS_WITH(walked("1 walk 20, 40 7"), Catch::Contains("more values than have moved"));
  CHECK_THROWS_WITH(walked("1 walk 20, 400"), Catch::Contains("\"400\" is not a whole number"));
  CHECK_THROWS_WITH(walked("1 walk 20, "), Catch::Contains("nothing comes after the comma"));
  CHECK_THROWS_WITH(walked("1 jump +, 4"), Catch::Contains("a comma comes only after"));
}
