#include "partial_file.hpp"

#include <fcntl.h>
#include <fmt/core.h>

#include <algorithm>
#include <atomic>
#include <cerrno>
#include <csignal>
#include <cstring>
#include <filesystem>
#include <mutex>
#include <random>

#include "vole/base/error.hpp"
#include "vole/base/paths.hpp"
#include "vole/base/program.hpp"

#if defined(_WIN32)
#include <io.h>
#include <sys/stat.h>
#else
#include <sys/stat.h>
#include <unistd.h>
#endif

namespace vole {
namespace {

namespace fs = std::filesystem;

// A signal's handler may neither allocate nor lock: it walks this list, whose links are never freed.
struct LeftOver {
  fs::path path;
  std::atomic<bool> is_there{false};
  LeftOver* next = nullptr;
};
std::atomic<LeftOver*> left_overs{nullptr};
std::mutex left_overs_change;

void remember(const fs::path& path) {
  const std::lock_guard lock(left_overs_change);
  for (LeftOver* item = left_overs; item; item = item->next)
    if (!item->is_there) {
      item->path = path;
      item->is_there = true;
      return;
    }
  auto* const item = new LeftOver;  // for the life of the program
  item->path = path;
  item->next = left_overs;
  item->is_there = true;
  left_overs = item;
}

// The few calls that differ between systems.
#if defined(_WIN32)
int open_new(const fs::path& path) {
  return _wopen(path.c_str(), _O_WRONLY | _O_CREAT | _O_EXCL | _O_BINARY, _S_IREAD | _S_IWRITE);
}
int open_there(const fs::path& path) {
  return _wopen(path.c_str(), _O_WRONLY | _O_BINARY);
}
std::int64_t write_some(int file, const char* data, std::size_t size) {
  return _write(file, data, static_cast<unsigned>(std::min<std::size_t>(size, 1u << 30)));
}
int close_it(int file) {
  return _close(file);
}
void unlink_it(const fs::path& path) {
  _wunlink(path.c_str());
}
#else
int open_new(const fs::path& path) {
  return ::open(path.c_str(), O_WRONLY | O_CREAT | O_EXCL | O_CLOEXEC, 0666);
}
int open_there(const fs::path& path) {
  return ::open(path.c_str(), O_WRONLY | O_CLOEXEC);
}
std::int64_t write_some(int file, const char* data, std::size_t size) {
  return ::write(file, data, size);
}
int close_it(int file) {
  return ::close(file);
}
void unlink_it(const fs::path& path) {
  ::unlink(path.c_str());
}
#endif

[[noreturn]] void cannot(const std::string& asked, int error) {
  throw Error(FilePosition::whole_file(asked), fmt::format("cannot be written: {}", std::strerror(error)));
}

// The error number; 0 when all of it was written. Closes the file.
int write_and_close(int file, std::string_view content) {
  int error = 0;
  while (!content.empty() && error == 0) {
    const std::int64_t written = write_some(file, content.data(), content.size());
    if (written >= 0)
      content.remove_prefix(static_cast<std::size_t>(written));
    else if (errno != EINTR)
      error = errno;
  }
  if (close_it(file) != 0 && error == 0) error = errno;
  return error;
}

fs::path unused_name(const fs::path& folder) {
  static std::atomic<std::uint64_t> count{0};
  std::random_device chance;
  const std::uint64_t number = (std::uint64_t{chance()} << 32 | chance()) + count++;
  return folder / fmt::format(".vole-{:016x}.part", number);
}

}  // namespace

std::string write_partial(const std::string& folder, std::string_view content, const std::string& like,
                          const std::string& asked) {
  fs::path path;
  int file = -1;
  for (int tries = 0; file < 0 && tries < 100; ++tries) {
    path = unused_name(to_path(folder.empty() ? "." : folder));
    remember(path);
    file = open_new(path);
    const int error = errno;
    if (file >= 0) break;
    forget_partial(to_utf8(path));
    if (error != EEXIST) cannot(asked, error);
  }
  if (file < 0) cannot(asked, EEXIST);
  if (const int error = write_and_close(file, content)) {
    unlink_it(path);
    forget_partial(to_utf8(path));
    cannot(asked, error);
  }
  std::error_code failed;
  if (const fs::file_status status = fs::status(to_path(like), failed); fs::is_regular_file(status))
    fs::permissions(path, status.permissions(), failed);
  return to_utf8(path);
}

void forget_partial(const std::string& path) {
  const std::lock_guard lock(left_overs_change);
  for (LeftOver* item = left_overs; item; item = item->next)
    if (item->is_there && item->path == to_path(path)) item->is_there = false;
}

void write_into(const std::string& path, std::string_view content, const std::string& asked) {
  const int file = open_there(to_path(path));
  if (file < 0) cannot(asked, errno);
  if (const int error = write_and_close(file, content)) cannot(asked, error);
}

bool may_write(const std::string& path) {
#if defined(_WIN32)
  return _waccess(to_path(path).c_str(), 2) == 0;
#else
  return ::access(path.c_str(), W_OK) == 0;
#endif
}

extern "C" void remove_partial_files_and_end(int signal) {
  for (LeftOver* item = left_overs; item; item = item->next)
    if (item->is_there) unlink_it(item->path);
  std::signal(signal, SIG_DFL);
  std::raise(signal);
}

void clean_up_on_signals() {
  handle_end_signals(remove_partial_files_and_end);
#if defined(SIGXFSZ)
  std::signal(SIGXFSZ, SIG_IGN);  // a write then fails, with a message
#endif
}

}  // namespace vole
