// The JSON Schemas of all files that a game is written in.
#pragma once

#include <string>
#include <vector>

#include "vole/world/component_types.hpp"

namespace vole {

struct SchemaFile {
  std::string name;  // "sheet": of NAME.sheet.toml
  std::string text;
};

// With the fields of these components in kinds.
std::vector<SchemaFile> all_schemas(const ComponentTypes& types);
// Writes them into a folder, as NAME.schema.json, and returns the paths. Throws Error where such a file is somebody's own.
std::vector<std::string> write_schemas(const ComponentTypes& types, const std::string& folder);

}  // namespace vole
