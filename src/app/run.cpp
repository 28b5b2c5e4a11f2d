#include "vole/app/run.hpp"

#include <fmt/core.h>

#include <cstdio>
#include <exception>

#include "vole/app/comparison.hpp"
#include "vole/app/options.hpp"
#include "vole/app/project.hpp"
#include "vole/app/schemas.hpp"
#include "vole/app/session.hpp"
#include "vole/asset/image.hpp"
#include "vole/base/files.hpp"
#include "vole/base/program.hpp"

namespace vole {
namespace {

// A session and the host it runs on, so that both live as long as the run.
class SessionOnHost final : public HostedRun {
 public:
  SessionOnHost(std::shared_ptr<Host> host, Game game, Project project, Options options)
      : host_(std::move(host)), session_(std::move(game), std::move(project), std::move(options), *host_) {}

  bool step() override { return session_.step(); }
  int finish() override { return session_.finish(); }

 private:
  std::shared_ptr<Host> host_;
  Session session_;
};

WindowWish window_for(const Project& project, const Options& options, bool shown) {
  WindowWish wish{project.title.value, project.canvas, options.scale, {}, project.scaling};
  if (shown && !project.icon.value.empty()) wish.icon = read_png(join_path(project.root, project.icon.value));
  return wish;
}

// Whether the window and its pictures have a size that a picture may have; says so otherwise.
bool scale_fits(IVec2 canvas, int scale) {
  if (may_be_enlarged(canvas, scale)) return true;
  fmt::print(stderr,
             "--scale {}: a canvas of {} x {} would be {} x {} pixels; the most is {} along a side and {} "
             "million in all\n",
             scale, canvas.x, canvas.y, std::int64_t{canvas.x} * scale, std::int64_t{canvas.y} * scale,
             Image::longest_side, Image::most_pixels / 1'000'000);
  return false;
}

int run_game(const MakeHost& window, Game game, Project project, Options options) {
  std::shared_ptr<Host> host;
  if (options.headless || !window)
    host = std::make_shared<HeadlessHost>(project.ticks_per_second);
  else
    host = window();
  const WindowWish wish = window_for(project, options, host->shows());
  auto run = std::make_unique<SessionOnHost>(host, std::move(game), std::move(project), std::move(options));
  end_by_itself_on_signals();
  host->open(wish);
  return host->run(std::move(run));
}

}  // namespace

namespace {

int run_or_say_why_not(const MakeHost& window, int argc, const char* const* argv, Game game) {
  try {
    const std::vector<std::string> words = program_words(argc, argv);
    std::vector<const char*> pointers;
    for (const std::string& word : words) pointers.push_back(word.c_str());
    Options options;
    const std::string program = program_path(words.empty() ? "" : words.front());
    if (const auto code = parse_options(static_cast<int>(pointers.size()), pointers.data(),
                                        "A game made with Vole.", options))
      return *code;
    if (!options.schemas.empty()) {
      for (const std::string& path : write_schemas(game.types(), options.schemas)) fmt::print("{}\n", path);
      return 0;
    }
    Project project = read_project(find_project(game.project_file(), program));
    if (!options.compare.empty()) return compare_recordings(game, project, options.replay, options.compare);
    if (!scale_fits(project.canvas, options.scale)) return 2;
    return run_game(window, std::move(game), std::move(project), std::move(options));
  } catch (const Error& error) {
    fmt::print(stderr, "{}\n", error.what());
  } catch (const std::exception& error) {
    fmt::print(stderr, "error: {}\n", error.what());
  }
  return 1;
}

}  // namespace

int run_on(const MakeHost& window, int argc, const char* const* argv, Game game) {
  // Until it plays, a signal ends it at once.
  clean_up_on_signals();
  const int code = with_output_written(run_or_say_why_not(window, argc, argv, std::move(game)));
  // As shells count programs that a signal has ended.
  return end_signal() != 0 ? 128 + end_signal() : code;
}

}  // namespace vole
