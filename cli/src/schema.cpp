#include <fmt/format.h>

#include "commands.hpp"
#include "vole/app/schemas.hpp"
#include "vole/base/file_set.hpp"

int schema(const SchemaOptions& options) {
  vole::FileSet files;
  std::string written;
  for (const vole::SchemaFile& file : vole::all_schemas(vole::ComponentTypes())) {
    const std::string path = vole::join_path(options.output, file.name + ".schema.json");
    files.add(path, file.text);
    written += path + "\n";
  }
  files.put_in_place();
  fmt::print("{}", written);
  return 0;
}
