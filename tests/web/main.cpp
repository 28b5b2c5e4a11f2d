// The allotment without a window, for a machine of another kind: its first word is the path of game.toml, since there is
// no program on a disk to look beside.
#include "allotment.hpp"
#include "vole/app/options.hpp"
#include "vole/app/project.hpp"
#include "vole/app/session.hpp"

int main(int argc, char** argv) {
  try {
    vole::Options options;
    if (const auto code = vole::parse_options(argc - 1, argv + 1, "The allotment.", options)) return *code;
    vole::HeadlessHost host(60);
    return host.run(std::make_unique<vole::Session>(allotment(), vole::read_project(argv[1]), options, host));
  } catch (const std::exception& error) {
    std::fprintf(stderr, "%s\n", error.what());
    return 1;
  }
}
