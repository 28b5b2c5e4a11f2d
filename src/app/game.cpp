#include "vole/app/game.hpp"

#include <utility>

namespace vole {

Game::Game(std::string project_file) : project_file_(std::move(project_file)) {}

Game& Game::knows(const Track& track) {
  tracks_.push_back(&track);
  return *this;
}

Game& Game::step_after(std::string_view step, std::string_view name, std::function<void(Stage&)> run) {
  steps_.add_after(step, name, std::move(run));
  return *this;
}

Game& Game::saves_are(int version) {
  save_versions_.are(version);
  return *this;
}

Game& Game::save_step(int from, SaveStep step) {
  save_versions_.add(from, std::move(step));
  return *this;
}

}  // namespace vole
