// What scenes hand to one another, as state. Its type is known from the scene, and is not written.
#pragma once

#include <string>
#include <string_view>

#include "vole/base/reading.hpp"
#include "vole/base/state.hpp"
#include "vole/scene/argument.hpp"

namespace vole {

void write_handed(StateWriter& out, const SceneArgument& handed);
// `type` is nullptr where nothing is ever handed.
SceneArgument read_handed(StateReader& in, const DescribedType* type);
// A line "key = { ... }"; empty for none.
std::string handed_to_toml(std::string_view key, const SceneArgument& handed);
SceneArgument read_handed(const TomlValue* toml, const DescribedType* type, Report& report);

}  // namespace vole
