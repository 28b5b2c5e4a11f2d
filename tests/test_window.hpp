// A session with a window that nobody sees.
#pragma once

#include <memory>
#include <string>
#include <vector>

#include "support.hpp"
#include "vole/app/session.hpp"

// One picture a step, at 60 steps a second of the game's time.
class TestWindow : public vole::HeadlessHost {
 public:
  TestWindow() : HeadlessHost(60) {}
  bool shows() const override { return true; }
  bool closing() const override { return closes; }
  void gather(vole::InputGather& gather) override {
    for (const auto& event : events) gather.add(event);
    events.clear();
  }
  void present(const vole::Image& canvas) override { shown = canvas; }
  void tell(const std::string& line) override { told = line; }
  void press(const char* key, bool down = true) {
    events.push_back({*vole::find_control(key), down ? 1.0f : 0.0f});
  }

  std::vector<vole::ControlEvent> events;
  bool closes = false;
  vole::Image shown;
  std::string told;
};

// The small game of support.hpp in such a window.
struct TestSession {
  TempFolder folder;
  vole::Game game{"game.toml"};
  vole::Options options;
  TestWindow host;
  std::unique_ptr<vole::Session> session;

  TestSession() { write_small_game(folder); }
  vole::Session& start(vole::Host& on) {
    session =
        std::make_unique<vole::Session>(game, vole::read_project(folder.path("game.toml")), options, on);
    return *session;
  }
  vole::Session& start() { return start(host); }
  std::string text(const std::string& file) const { return vole::read_text(folder.path(file), 1 << 20); }
};
