#include "vole/base/program.hpp"

#include <cerrno>
#include <csignal>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <ctime>
#include <filesystem>

#include "partial_file.hpp"
#include "vole/base/paths.hpp"

#if defined(_WIN32)
#include <windows.h>

#include <memory>
#endif

namespace vole {

#if defined(_WIN32)

std::string program_path(const std::string& called) {
  // Paths may be longer than MAX_PATH; the function cuts them off without a word.
  std::wstring path(32768, L'\0');
  const DWORD length = GetModuleFileNameW(nullptr, path.data(), static_cast<DWORD>(path.size()));
  if (length == 0 || length == path.size()) return called;
  path.resize(length);
  return to_utf8(std::filesystem::path(path));
}

std::vector<std::string> program_words(int argc, const wchar_t* const* argv) {
  std::vector<std::string> words;
  for (int i = 0; i < argc; ++i) {
    const std::u8string word = std::filesystem::path(argv[i]).u8string();
    words.emplace_back(word.begin(), word.end());
  }
  return words;
}

std::vector<std::string> program_words(int argc, const char* const* argv) {
  if (argv != __argv) return {argv, argv + argc};
  int count = 0;
  const std::unique_ptr<wchar_t*, decltype(&LocalFree)> wide(CommandLineToArgvW(GetCommandLineW(), &count),
                                                             &LocalFree);
  return wide ? program_words(count, wide.get()) : std::vector<std::string>{argv, argv + argc};
}

std::string environment(const char* name) {
  const wchar_t* const value = _wgetenv(std::filesystem::path(name).c_str());
  if (!value) return {};
  const std::u8string text = std::filesystem::path(value).u8string();
  return {text.begin(), text.end()};
}

#elif defined(__EMSCRIPTEN__)

// A page has no program on a disk: its files are mounted beside "/".
std::string program_path(const std::string&) {
  return "/program";
}

#else

std::string program_path(const std::string& called) {
  std::error_code failed;
  const auto self = std::filesystem::read_symlink("/proc/self/exe", failed);
  return to_utf8(failed ? std::filesystem::absolute(to_path(called), failed) : self);
}

#endif

#if !defined(_WIN32)
std::vector<std::string> program_words(int argc, const char* const* argv) {
  return {argv, argv + argc};
}

std::string environment(const char* name) {
  const char* const value = std::getenv(name);
  return value ? value : "";
}
#endif

const std::vector<int>& end_signals() {
#if defined(SIGHUP)
  static const std::vector<int> signals{SIGINT, SIGTERM, SIGHUP};
#else
  static const std::vector<int> signals{SIGINT, SIGTERM};
#endif
  return signals;
}

void handle_end_signals(void (*handler)(int signal)) {
  for (const int signal : end_signals())
    if (std::signal(signal, handler) == SIG_IGN) std::signal(signal, SIG_IGN);
}

namespace {

volatile std::sig_atomic_t signal_that_came = 0;
volatile std::time_t time_it_came = 0;

// Some programs send a signal twice at once, to a process and to its group: that is one wish.
extern "C" void note_signal(int signal) {
  const std::time_t now = std::time(nullptr);
  if (signal_that_came != 0 && now - time_it_came >= 2) return remove_partial_files_and_end(signal);
  if (signal_that_came == 0) time_it_came = now;
  signal_that_came = signal;
  std::signal(signal, note_signal);  // some systems set it back
}

}  // namespace

void end_by_itself_on_signals() {
  clean_up_on_signals();
  handle_end_signals(note_signal);
}

int end_signal() {
  return signal_that_came;
}

int with_output_written(int code) {
  errno = 0;
  const bool failed = std::fflush(stdout) != 0 || std::ferror(stdout) != 0;
  if (!failed) return code;
  std::fprintf(stderr, "error: the standard output cannot be written: %s\n",
               errno != 0 ? std::strerror(errno) : "it failed before");
  return code == 0 ? 1 : code;
}

}  // namespace vole
