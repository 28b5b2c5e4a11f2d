#if !defined(_WIN32)

#include <fcntl.h>
#include <fmt/core.h>
#include <sys/file.h>
#include <unistd.h>

#include <cerrno>
#include <cstring>

#include "folder_lock.hpp"
#include "vole/base/error.hpp"

namespace vole {

bool FolderLock::try_it(const std::string& file) {
  if (held_ < 0) held_ = ::open(file.c_str(), O_RDWR | O_CREAT | O_CLOEXEC, 0666);
  if (held_ < 0)
    throw Error(FilePosition::whole_file(file), fmt::format("cannot be written: {}", std::strerror(errno)));
#if defined(__EMSCRIPTEN__)
  return true;  // a page has its files for itself
#else
  return ::flock(held_, LOCK_EX | LOCK_NB) == 0;
#endif
}

FolderLock::~FolderLock() {
  if (held_ >= 0) ::close(held_);
}

namespace {

void flush(const std::string& path, int flags) {
  const int file = ::open(path.c_str(), flags | O_CLOEXEC);
  if (file < 0) return;
  ::fsync(file);
  ::close(file);
}

}  // namespace

void flush_file(const std::string& path) {
  flush(path, O_RDONLY);
}
void flush_folder(const std::string& path) {
  flush(path, O_RDONLY | O_DIRECTORY);
}

}  // namespace vole

#endif
