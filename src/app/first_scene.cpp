#include "vole/app/first_scene.hpp"

#include <fmt/core.h>

#include "vole/app/project.hpp"
#include "vole/app/simulation.hpp"
#include "vole/base/reading.hpp"

namespace vole {

void ask_for(Simulation& simulation, const Game& game, const Project& project, const FirstScene& first) {
  const std::string& name = first.scene.empty() ? project.first_scene.value : first.scene;
  const FilePosition asked = first.file.empty() ? FilePosition{} : FilePosition::whole_file(first.file);
  const FilePosition where = first.scene.empty() ? project.first_scene.where : asked;
  if (first.with.empty()) return simulation.ask_for(name, where);
  const SceneType& type = game.scenes().get(name, where);
  if (!type.argument)
    throw Error(
        asked,
        fmt::format("{}: the scene \"{}\" expects nothing", first.file.empty() ? "--with" : "with", name),
        "say in its class: using Argument = MyStruct;");
  const TomlValue toml = parse_toml(first.with, first.file.empty() ? "--with" : first.file + ": with");
  Report report;
  SceneArgument argument(*type.argument);
  type.argument->read(toml, argument.data(), {}, report, TableOf::state);
  report.throw_if_errors();
  simulation.ask_for(name, std::move(argument), where);
}

}  // namespace vole
