#include "vole/app/game.hpp"

#include <fmt/format.h>

#include "vole/base/names.hpp"

namespace vole {

std::unique_ptr<Scene> Game::make_scene(std::string_view name, const Place& asked) const {
  for (const NamedScene& scene : scenes_)
    if (scene.name == name) return scene.make();
  throw Error(asked, fmt::format("no scene \"{}\"", name), did_you_mean(name, names_of(scenes_)));
}

}  // namespace vole
