#include <fmt/format.h>

#include "commands.hpp"
#include "outputs.hpp"
#include "vole/app/schemas.hpp"
#include "vole/base/file_set.hpp"

int schema(const SchemaOptions& options) {
  vole::FileSet files;
  std::string written;
  for (const vole::SchemaFile& file : vole::all_schemas(vole::ComponentTypes())) {
    const std::string path = vole::join_path(options.output, file.name + ".schema.json");
    // The first lines of what is written: a file that begins otherwise is somebody's own.
    expect_made_by_vole(path, "{\n  \"$comment\": \"Made by Vole");
    files.add(path, file.text);
    written += path + "\n";
  }
  files.put_in_place();
  fmt::print("{}", written);
  return 0;
}
