#include "handed_state.hpp"

#include <fmt/core.h>

namespace vole {

void write_handed(StateWriter& out, const SceneArgument& handed) {
  write_state(out, handed.type() != nullptr);
  if (handed.type()) handed.type()->write_state(out, handed.data());
}

SceneArgument read_handed(StateReader& in, const DescribedType* type) {
  bool is_there = false;
  read_state(in, is_there);
  if (!is_there) return {};
  if (!type) StateReader::broken();
  SceneArgument handed(*type);
  type->read_state(in, handed.data());
  return handed;
}

std::string handed_to_toml(std::string_view key, const SceneArgument& handed) {
  if (!handed.type()) return {};
  return fmt::format("{} = {}\n", key, handed.type()->to_inline_toml(handed.data()));
}

SceneArgument read_handed(const TomlValue* toml, const DescribedType* type, Report& report) {
  if (!toml || !type) return {};
  SceneArgument handed(*type);
  type->read(*toml, handed.data(), {}, report, TableOf::state);
  return handed;
}

}  // namespace vole
