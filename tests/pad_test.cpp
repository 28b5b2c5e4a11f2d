// A pad that the window library makes up, in a real window: plugged in, pressed, pushed, pulled out, and playing all games; two of
// them to their end, and by the window's keys too.
//   pad_tests, with a display
#include <SDL.h>

#include <functional>
#include <map>
#include <memory>

#include "../examples/allotment/art/gatherer.hpp"
#include "../examples/milkround/art/driver.hpp"
#include "../examples/towpath/art/pilot.hpp"
#include "allotment.hpp"
#include "milkround.hpp"
#include "support.hpp"
#include "towpath.hpp"
#include "vole/app/session.hpp"
#include "vole/window.hpp"

namespace {

// A virtual pad, for as long as this is there.
class VirtualPad {
 public:
  VirtualPad()
      : index_(SDL_JoystickAttachVirtual(SDL_JOYSTICK_TYPE_GAMECONTROLLER, SDL_CONTROLLER_AXIS_MAX,
                                         SDL_CONTROLLER_BUTTON_MAX, 0)),
        joystick_(SDL_JoystickOpen(index_)) {
    REQUIRE(index_ >= 0);
    REQUIRE(joystick_);
  }
  ~VirtualPad() {
    SDL_JoystickClose(joystick_);
    SDL_JoystickDetachVirtual(index_);
  }
  VirtualPad(const VirtualPad&) = delete;
  VirtualPad& operator=(const VirtualPad&) = delete;

  void press(SDL_GameControllerButton button, bool down = true) {
    REQUIRE(SDL_JoystickSetVirtualButton(joystick_, button, down ? 1 : 0) == 0);
  }
  void push(SDL_GameControllerAxis axis, float share) {
    REQUIRE(SDL_JoystickSetVirtualAxis(joystick_, axis, static_cast<Sint16>(share * 32767)) == 0);
  }

 private:
  int index_;
  SDL_Joystick* joystick_;
};

vole::Controls pad_controls() {
  vole::Controls controls;
  controls.actions.push_back({"jump", {*vole::find_control("pad south")}});
  controls.actions.push_back({"up", {*vole::find_control("pad stick left up")}});
  controls.actions.push_back({"brake", {*vole::find_control("pad trigger right")}});
  controls.axes.push_back(
      {.name = "steer", .sticks = {*vole::find_control("pad stick left x")}, .is_flat = true});
  return controls;
}

// A window that somebody plays in.
class PlayedWindow : public vole::Host {
 public:
  using Play =
      std::function<void(const vole::Session& session)>;  // before the events of each tick are gathered
  PlayedWindow(std::shared_ptr<vole::Host> window, std::string last_scene, Play play)
      : window_(std::move(window)), last_scene_(std::move(last_scene)), play_(std::move(play)) {}
  void watch(const vole::Session& session) { session_ = &session; }

  void open(const vole::WindowWish& wish) override { window_->open(wish); }
  int run(std::unique_ptr<vole::HostedRun> run) override { return window_->run(std::move(run)); }
  // A tick for each step, so that the run takes no longer than it must.
  std::int64_t elapsed() override { return time_.elapsed(); }
  void gather(vole::InputGather& gather) override {
    if (session_) play_(*session_);
    window_->gather(gather);
  }
  bool shows() const override { return true; }
  void present(const vole::Image& canvas) override { window_->present(canvas); }
  bool closing() const override {
    return window_->closing() || (session_ && session_->scene_name() == last_scene_);
  }
  void tell(const std::string& line) override { window_->tell(line); }

 private:
  std::shared_ptr<vole::Host> window_;
  std::string last_scene_;
  Play play_;
  const vole::Session* session_ = nullptr;
  vole::HeadlessHost time_{60};
};

// As the window system tells of keys.
void tell_key(SDL_Scancode key, bool down) {
  static std::map<SDL_Scancode, bool> held;
  if (held[key] == down) return;
  held[key] = down;
  SDL_Event event{};
  event.type = down ? SDL_KEYDOWN : SDL_KEYUP;
  event.key.state = down ? SDL_PRESSED : SDL_RELEASED;
  event.key.keysym.scancode = key;
  event.key.keysym.sym = SDL_GetKeyFromScancode(key);
  REQUIRE(SDL_PushEvent(&event) == 1);
}

// What was recorded ends the same without a window.
void repeat(const vole::Game& game, const vole::Project& project, const std::string& recording) {
  vole::Options again;
  again.replay = recording;
  again.headless = true;
  vole::HeadlessHost headless(60);
  vole::Session replay(game, project, again, headless);
  while (replay.step()) {
  }
  CHECK(replay.finish() == 0);
}

// Plays a game in a window from its title to its last scene: press(what its player wants, or nothing before it begins).
template <class Player, class Press>
void play_to_end(const vole::Game& game, const std::string& name, const std::string& last_scene,
                 const Press& press) {
  TempFolder folder;
  vole::Options options;
  options.seed = 7;
  options.ticks = 60 * 150;
  options.record = folder.path("play.run");
  const vole::Project project = vole::read_project(source_folder() + "/examples/" + name + "/game.toml");
  Player player;
  std::string scene;
  PlayedWindow host(vole::make_window_host(), last_scene, [&](const vole::Session& session) {
    // What stays down from one scene to the next counts only when it is pressed anew.
    if (std::exchange(scene, session.scene_name()) != session.scene_name()) return press({});
    press(player.next(session));
  });
  host.open({name, project.canvas, 2, {}});
  vole::Session session(game, project, options, host);
  host.watch(session);
  press({});
  while (session.step()) {
  }
  CHECK(session.scene_name() == last_scene);
  CHECK(session.finish() == 0);
  repeat(game, project, options.record);
}

}  // namespace

TEST_CASE(
    "a pad that is plugged in while the game runs is heard, is let go of when it is gone, and comes back") {
  const std::shared_ptr<vole::Host> window = vole::make_window_host();
  window->open({"pads", {160, 90}, 2, {}});
  const auto controls = std::make_shared<const vole::Controls>(pad_controls());
  vole::InputGather gather(controls);
  vole::Input input;
  input.use(controls, 60);
  // The window library tells of a pad in its own time.
  const auto next = [&] {
    for (int i = 0; i < 3; ++i) {
      SDL_Delay(5);
      window->gather(gather);
    }
    input.take(gather.latch());
  };
  for (int times = 0; times < 2; ++times) {
    {
      VirtualPad pad;
      next();
      CHECK(input.players[0].pads == 0);  // nobody has used it
      pad.press(SDL_CONTROLLER_BUTTON_A);
      next();
      CHECK(input.pressed("jump"));
      CHECK(input.players[0].pads == 1);
      pad.press(SDL_CONTROLLER_BUTTON_A, false);
      pad.push(SDL_CONTROLLER_AXIS_LEFTX, 0.6f);
      pad.push(SDL_CONTROLLER_AXIS_LEFTY, -0.8f);
      next();
      CHECK(input.released("jump"));
      CHECK(input.held("up"));
      CHECK(input.direction("steer").x == Approx(0.6).margin(0.02));
      CHECK(input.direction("steer").y == Approx(-0.8).margin(0.02));
      pad.push(SDL_CONTROLLER_AXIS_TRIGGERRIGHT, 1);
      next();
      CHECK(input.held("brake"));
    }
    next();
    CHECK(input.lost_pad());
    CHECK_FALSE(input.held("brake"));
    CHECK(input.released("up"));
    next();  // the stick went to its middle by steps, of which one may count for a tick
    CHECK(input.direction("steer") == vole::Vec2{0, 0});
  }
}

TEST_CASE("a pad plays the towpath in its window, and what it did is repeated without one") {
  TempFolder folder;
  vole::Options options;
  options.seed = 7;
  options.ticks = 900;
  options.first.scene = "run";
  options.record = folder.path("pad.run");
  const vole::Project project = vole::read_project(source_folder() + "/examples/towpath/game.toml");
  Pilot pilot;
  std::optional<VirtualPad> pad;
  PlayedWindow host(vole::make_window_host(), {}, [&](const vole::Session& session) {
    pad->press(SDL_CONTROLLER_BUTTON_A, pilot.holds_jump(session.stage()));
  });
  host.open({"towpath", project.canvas, 2, {}});
  pad.emplace();
  vole::Session session(towpath(), project, options, host);
  host.watch(session);
  while (session.step()) {
  }
  CHECK(session.finish() == 0);
  const vole::Stage& stage = session.stage();
  CHECK(stage.get<vole::Pose>(stage.first("vole")).at.x - stage.level().offset().x > 900);
  const vole::Recording recording = vole::read_recording(options.record);
  int jumps = 0;
  for (const auto& line : recording.inputs)
    for (std::size_t at = line.value.find("jump +"); at != std::string::npos;
         at = line.value.find("jump +", at + 1))
      ++jumps;
  CHECK(jumps > 3);
  repeat(towpath(), project, options.record);
}

TEST_CASE("the milk round is driven from its title to its end by a pad, and by keys") {
  SECTION("by keys") {
    play_to_end<Milkman>(milkround(), "milkround", "end", [](const Milkman::Wants& wants) {
      tell_key(SDL_SCANCODE_RETURN, wants.start);
      tell_key(SDL_SCANCODE_SPACE, wants.ring);
      tell_key(SDL_SCANCODE_LEFT, wants.way.x < 0);
      tell_key(SDL_SCANCODE_RIGHT, wants.way.x > 0);
      tell_key(SDL_SCANCODE_UP, wants.way.y < 0);
      tell_key(SDL_SCANCODE_DOWN, wants.way.y > 0);
    });
  }
  SECTION("by a pad") {
    std::optional<VirtualPad> pad;
    play_to_end<Milkman>(milkround(), "milkround", "end", [&](const Milkman::Wants& wants) {
      if (!pad) pad.emplace();
      pad->press(SDL_CONTROLLER_BUTTON_START, wants.start);
      pad->press(SDL_CONTROLLER_BUTTON_A, wants.ring);
      pad->push(SDL_CONTROLLER_AXIS_LEFTX, static_cast<float>(wants.way.x));
      pad->push(SDL_CONTROLLER_AXIS_LEFTY, static_cast<float>(wants.way.y));
    });
  }
}

TEST_CASE("the allotment is played from its title to its finish by a pad, and by keys") {
  SECTION("by keys") {
    play_to_end<Gatherer>(allotment(), "allotment", "finish", [](const Gatherer::Wants& wants) {
      tell_key(SDL_SCANCODE_RETURN, wants.start);
      tell_key(SDL_SCANCODE_SPACE, wants.jump);
      tell_key(SDL_SCANCODE_LEFT, wants.left);
      tell_key(SDL_SCANCODE_RIGHT, wants.right);
      tell_key(SDL_SCANCODE_DOWN, wants.dig);
    });
  }
  SECTION("by a pad") {
    std::optional<VirtualPad> pad;
    play_to_end<Gatherer>(allotment(), "allotment", "finish", [&](const Gatherer::Wants& wants) {
      if (!pad) pad.emplace();
      pad->press(SDL_CONTROLLER_BUTTON_START, wants.start);
      pad->press(SDL_CONTROLLER_BUTTON_A, wants.jump);
      pad->press(SDL_CONTROLLER_BUTTON_X, wants.dig);
      pad->press(SDL_CONTROLLER_BUTTON_DPAD_DOWN, wants.dig);
      pad->push(SDL_CONTROLLER_AXIS_LEFTX, wants.left ? -1.0f : wants.right ? 1.0f : 0.0f);
    });
  }
}
