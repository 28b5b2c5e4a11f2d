#include <fmt/core.h>

#include "commands.hpp"
#include "vole/app/schemas.hpp"

int schema(const SchemaOptions& options) {
  for (const std::string& path : vole::write_schemas(vole::ComponentTypes(), options.output))
    fmt::print("{}\n", path);
  return 0;
}
