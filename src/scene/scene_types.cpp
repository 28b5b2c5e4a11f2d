#include "vole/scene/scene_types.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <stdexcept>

#include "vole/base/error.hpp"
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
  const auto is_it = [mark](const SceneType& known) { return known.mark == mark; };
  const auto first = std::find_if(types_.begin(), types_.end(), is_it);
  if (first != types_.end() && std::none_of(first + 1, types_.end(), is_it)) return first->name;
  if (first != types_.end())
    throw Error(FilePosition{}, fmt::format("several scenes are of the class {}", type),
                fmt::format("name one of them, as in leave_for(\"{}\")", first->name));
  throw Error(FilePosition{}, fmt::format("the game does not know the scene {}", type),
              fmt::format("add scene<{}>(\"its name\") to the Game", type));
}

SceneArgument SceneTypes::argument_for(const SceneType& scene, SceneArgument argument) const {
  if (!argument.type()) return scene.given;
  expect_argument(scene, argument);
  return argument;
}

void SceneTypes::expect_argument(const SceneType& scene, const SceneArgument& argument) const {
  if (!argument.type() || argument.type() == scene.argument) return;
  if (scene.argument)
    throw Error(FilePosition{}, fmt::format("the scene \"{}\" expects a {}, not a {}", scene.name,
                                            scene.argument->name(), argument.type()->name()));
  throw Error(
      FilePosition{},
      fmt::format("the scene \"{}\" expects nothing, and is given a {}", scene.name, argument.type()->name()),
      fmt::format("say in its class: using Argument = {};", argument.type()->name()));
}

void SceneTypes::expect_result(const SceneType& scene, const DescribedType& result) {
  if (scene.result == &result) return;
  if (scene.result)
    throw Error(FilePosition{}, fmt::format("the scene \"{}\" hands back a {}, not a {}", scene.name,
                                            scene.result->name(), result.name()));
  throw Error(FilePosition{},
              fmt::format("the scene \"{}\" hands back nothing, and no {}", scene.name, result.name()),
              fmt::format("say in its class: using Result = {};", result.name()));
}

}  // namespace vole
