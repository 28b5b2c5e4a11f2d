// The program `vole`: starts games, checks them, shows their files as pictures, packs them.
#include <fmt/core.h>

#include <cstdio>

#include "command.hpp"
#include "commands.hpp"
#include "vole/base/error.hpp"
#include "vole/base/program.hpp"

int main(int argc, char** argv) {
  vole::clean_up_on_signals();
  try {
    CommandLine line(vole::program_path(argv[0]));
    for (const auto add : {add_new, add_check, add_preview, add_recording, add_level, add_atlas, add_schema,
                           add_package, add_setup, add_help_files})
      add(line);
    return vole::with_output_written(line.run(argc, argv));
  } catch (const vole::Error& error) {
    fmt::print(stderr, "{}\n", error.what());
  } catch (const std::exception& error) {
    fmt::print(stderr, "error: {}\n", error.what());
  }
  return 1;
}
