#include "build.hpp"

#include <fmt/core.h>

#include <algorithm>
#include <chrono>
#include <cstdlib>
#include <filesystem>
#include <string_view>
#include <thread>

#include "process.hpp"
#include "vole/base/error.hpp"
#include "vole/base/files.hpp"

namespace {

using vole::Error;
using vole::FilePosition;

std::string as_command(const std::vector<std::string>& words) {
  std::string line;
  for (const std::string& word : words)
    line += fmt::format("{}{}", line.empty() ? "" : " ", shell_word(word));
  return line;
}

// Says how far a build is, every few seconds, by the "[ 42%]" or "[7/90]" that builds print.
class ShownShare {
 public:
  explicit ShownShare(const std::string& what) : what_(what) {}

  void hear(std::string_view piece) {
    const std::size_t end = piece.rfind(']');
    const std::size_t start = end == std::string_view::npos ? end : piece.rfind('[', end);
    if (start == std::string_view::npos || end - start > 16) return;
    // Compilers print names of warnings in such brackets too.
    if (piece.substr(start, end - start).find_first_not_of("[ 0123456789/%") != std::string_view::npos)
      return;
    const auto now = Clock::now();
    if (now - told_ < std::chrono::seconds(5)) return;
    told_ = now;
    fmt::print(stderr, "{}: {}\n", what_, piece.substr(start, end - start + 1));
  }

 private:
  using Clock = std::chrono::steady_clock;
  const std::string& what_;
  Clock::time_point told_ = Clock::now();
};

}  // namespace

void must_run(const std::vector<std::string>& words, const std::string& what) {
  ShownShare share(what);
  const ProcessResult result =
      run_process(words, Complaints::shown, [&share](std::string_view piece) { share.hear(piece); });
  if (result.code == 0) return;
  fmt::print(stderr, "{}", result.output);
  throw Error(FilePosition{}, fmt::format("{} failed; the command was: {}", what, as_command(words)));
}

void must_configure(std::vector<std::string> words, const std::string& source, const std::string& build,
                    const std::string& what) {
  // A folder that was configured before keeps to its program.
  const bool chosen =
      vole::file_exists(vole::join_path(build, "CMakeCache.txt")) || std::getenv("CMAKE_GENERATOR");
  if (!chosen && program_exists("ninja")) words.insert(words.end(), {"-G", "Ninja"});
  words.insert(words.end(), {"-S", source, "-B", build});
  must_run(words, what);
}

void must_build(const std::string& folder, const std::string& what, const std::vector<std::string>& more) {
  // Without a number some build programs start a compiler for every file at once.
  const unsigned processors = std::max(std::thread::hardware_concurrency(), 1u);
  std::vector<std::string> words{"cmake", "--build", folder, "--parallel", std::to_string(processors)};
  words.insert(words.end(), more.begin(), more.end());
  must_run(words, what);
}

std::string build_game(const BuildWish& wish) {
  fmt::print(stderr, "building {} ...\n", wish.id);
  must_configure(wish.configure, wish.folder, wish.output, "configuring the build");
  must_build(wish.output, "the build", {"--target", wish.id});
  std::string program = vole::join_path(wish.output, wish.program);
  if (!vole::file_exists(program))
    throw Error(
        FilePosition::whole_file(program), "was not built",
        fmt::format("the program's CMake target must be named \"{}\", as the id in game.toml", wish.id));
  return program;
}

std::string vole_cmake_folder(const std::string& tool) {
  const std::string bin = vole::folder_of(tool);
  for (const char* folder : {"..", "../lib/cmake/vole", "../lib64/cmake/vole",
                             "../lib/x86_64-linux-gnu/cmake/vole", "../lib/aarch64-linux-gnu/cmake/vole"}) {
    const std::string candidate = vole::join_path(bin, folder);
    if (vole::file_exists(vole::join_path(candidate, "vole-config.cmake")))
      return std::filesystem::weakly_canonical(candidate).generic_string();
  }
  return {};
}
