// The program `vole`: starts games, checks them, shows their files as pictures, packs them.
#include <fmt/core.h>

#include <cstdio>

#include "command_line.hpp"
#include "vole/base/error.hpp"
#include "vole/base/program.hpp"

int main(int argc, char** argv) {
  vole::clean_up_on_signals();
  try {
    CommandLine command_line(vole::program_path(argv[0]));
    return vole::with_output_written(command_line.run(argc, argv));
  } catch (const vole::Error& error) {
    fmt::print(stderr, "{}\n", error.what());
  } catch (const std::exception& error) {
    fmt::print(stderr, "error: {}\n", error.what());
  }
  return 1;
}
