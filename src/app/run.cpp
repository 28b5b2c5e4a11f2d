#include "vole/app/run.hpp"

#include <fmt/format.h>

#include <cstdio>
#include <exception>

#include "vole/app/options.hpp"
#include "vole/app/project.hpp"
#include "vole/app/session.hpp"
#include "vole/asset/image.hpp"

namespace vole {
namespace {

int run_session(const MakeHost& window, const Game& game, const Project& project, const Options& options) {
  std::unique_ptr<Host> host;
  if (options.headless || !window)
    host = std::make_unique<HeadlessHost>(project.ticks_per_second);
  else
    host = window();
  Session session(game, project, options, *host);
  Image icon;
  if (!project.icon.value.empty() && host->shows())
    icon = read_png(join_path(project.root, project.icon.value));
  host->open({project.title.value, project.canvas, options.scale, std::move(icon)});
  if (options.ticks != 0) host->run([&session] { return session.step(); });
  return session.finish();
}

}  // namespace

int run_on(const MakeHost& window, int argc, const char* const* argv, const Game& game) {
  try {
    Options options;
    const std::string program = program_path(argc > 0 ? argv[0] : "");
    if (const auto code = parse_options(argc, argv, "A game made with Vole.", options)) return *code;
    return run_session(window, game, read_project(find_project(game.project_file(), program)), options);
  } catch (const Error& error) {
    fmt::print(stderr, "{}\n", error.what());
  } catch (const std::exception& error) {
    fmt::print(stderr, "error: {}\n", error.what());
  }
  return 1;
}

}  // namespace vole
