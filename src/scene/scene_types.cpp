#include "vole/scene/scene_types.hpp"

#include <fmt/format.h>

#include <stdexcept>

#include "vole/base/names.hpp"

namespace vole {

void SceneTypes::add(SceneType type) {
  if (find_named(types_, type.name))
    throw std::logic_error(fmt::format("two scenes are named \"{}\"", type.name));
  types_.push_back(std::move(type));
}

const SceneType& SceneTypes::get(std::string_view name, const FilePosition& asked) const {
  if (const SceneType* type = find_named(types_, name)) return *type;
  throw Error(asked, fmt::format("no scene \"{}\"", name), did_you_mean(name, names_of(types_)));
}

const std::string& SceneTypes::name_of(const void* mark, std::string_view type) const {
  for (const SceneType& known : types_)
    if (known.mark == mark) return known.name;
  throw Error(FilePosition{}, fmt::format("the game does not know the scene {}", type),
              fmt::format("add scene<{}>(\"its name\") to the Game", type));
}

void SceneTypes::expect_argument(const SceneType& scene, const SceneArgument& argument) const {
  if (!argument.type() || argument.type() == scene.argument) return;
  if (scene.argument)
    throw Error(FilePosition{}, fmt::format("the scene \"{}\" expects a {}, not a {}", scene.name,
                                            scene.argument->name, argument.type()->name));
  throw Error(
      FilePosition{},
      fmt::format("the scene \"{}\" expects nothing, and is given a {}", scene.name, argument.type()->name),
      fmt::format("say in its class: using Argument = {};", argument.type()->name));
}

}  // namespace vole
