#include <fmt/format.h>

#include "commands.hpp"
#include "vole/app/schemas.hpp"
#include "vole/base/files.hpp"

int schema(const SchemaOptions& options) {
  for (const vole::SchemaFile& file : vole::all_schemas(vole::ComponentTypes())) {
    const std::string path = vole::join_path(options.output, file.name + ".schema.json");
    vole::write_whole(path, file.text);
    fmt::print("{}\n", path);
  }
  return 0;
}
