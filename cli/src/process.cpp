#include "process.hpp"

#include <fcntl.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <string_view>

#include "vole/base/reading.hpp"

extern char** environ;  // NOLINT: the name that POSIX gives it

std::string shell_word(const std::string& word) {
  const auto plain = [](char c) {
    return std::isalnum(static_cast<unsigned char>(c)) != 0 ||
           std::string_view("/._-+=:@,").find(c) != std::string::npos;
  };
  if (!word.empty() && std::all_of(word.begin(), word.end(), plain)) return word;
  std::string quoted = "'";
  for (const char c : word) quoted += c == '\'' ? std::string("'\\''") : std::string(1, c);
  return quoted + "'";
}

ProcessResult run_process(const std::vector<std::string>& words, Complaints complaints,
                          const std::function<void(std::string_view)>& listen) {
  std::array<int, 2> ends{};
  if (pipe(ends.data()) != 0) return {127, {}};
  posix_spawn_file_actions_t actions;
  posix_spawn_file_actions_init(&actions);
  posix_spawn_file_actions_adddup2(&actions, ends[1], STDOUT_FILENO);
  if (complaints == Complaints::dropped)
    posix_spawn_file_actions_addopen(&actions, STDERR_FILENO, "/dev/null", O_WRONLY, 0);
  posix_spawn_file_actions_addclose(&actions, ends[0]);
  posix_spawn_file_actions_addclose(&actions, ends[1]);
  std::vector<char*> arguments;
  arguments.reserve(words.size() + 1);
  for (const std::string& word : words) arguments.push_back(const_cast<char*>(word.c_str()));
  arguments.push_back(nullptr);
  pid_t child = 0;
  const int failed = posix_spawnp(&child, arguments[0], &actions, nullptr, arguments.data(), environ);
  posix_spawn_file_actions_destroy(&actions);
  close(ends[1]);
  ProcessResult result;
  std::array<char, 4096> part{};
  while (!failed) {
    const ssize_t count = read(ends[0], part.data(), part.size());
    if (count <= 0) break;
    const std::string_view piece(part.data(), static_cast<std::size_t>(count));
    result.output += piece;
    if (listen) listen(piece);
  }
  close(ends[0]);
  int status = 0;
  if (failed || waitpid(child, &status, 0) < 0) return {127, {}};
  result.code = WIFEXITED(status) ? WEXITSTATUS(status) : 128;
  return result;
}

bool program_exists(const std::string& name) {
  return run_process({"sh", "-c", "command -v \"$1\"", "sh", name}, Complaints::dropped).code == 0;
}
