// A game: where its files are, its scenes and its own components.
//
//   vole::Game game("game.toml");
//   game.scene<Title>("title").scene<Beds>("beds").component<Bulb>("bulb");
#pragma once

#include <functional>
#include <memory>
#include <string>
#include <string_view>
#include <vector>

#include "vole/scene/component_types.hpp"
#include "vole/scene/scene.hpp"

namespace vole {

class Game {
 public:
  // `project_file` is looked for here, beside the program, and where a development build says.
  explicit Game(std::string project_file) : project_file_(std::move(project_file)) {}

  template <class SceneType>
  Game& scene(std::string_view name) {
    scenes_.push_back(
        {std::string(name), [] { return std::unique_ptr<Scene>(std::make_unique<SceneType>()); }});
    return *this;
  }
  template <Described T>
  Game& component(std::string_view name) {
    types_.add<T>(name);
    return *this;
  }

  const std::string& project_file() const { return project_file_; }
  const ComponentTypes& types() const { return types_; }
  // Throws Error at `asked` with the nearest name.
  std::unique_ptr<Scene> make_scene(std::string_view name, const Place& asked = {}) const;

 private:
  struct NamedScene {
    std::string name;
    std::function<std::unique_ptr<Scene>()> make;
  };

  std::string project_file_;
  std::vector<NamedScene> scenes_;
  ComponentTypes types_;
};

}  // namespace vole
