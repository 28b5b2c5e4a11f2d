#include <fmt/core.h>

#include "command.hpp"
#include "commands.hpp"
#include "vole/app/schemas.hpp"

void add_schema(CommandLine& line) {
  const auto output = std::make_shared<std::string>(".");
  Command command =
      line.add("schema", "Write JSON Schemas of all files, for editors that complete and check",
               "  vole schema -o schemas", [output] {
                 for (const std::string& path : vole::write_schemas(vole::ComponentTypes(), *output))
                   fmt::print("{}\n", path);
                 return 0;
               });
  command.word("-o,--output", *output, "The folder to put them in").value_name("DIR").shows_default();
}
